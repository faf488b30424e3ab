import { sequenceStudy } from "./study";
import { REACHED } from "./directions";
import { controlsPlayed, stepWords } from "./stepWords";
import type { Step } from "../../kit/schema";
import type { PatternKindRecord, PatternLever } from "../kind";
import { compileSequence } from "./compile";
import { describeSequence, offerSequence } from "./describe";
import type { SequenceProgram } from "./program";
import { sequenceStepper } from "./step";
import { sequenceStarters } from "./starters";

export { sequenceSchema as schema } from "./schema";

/** Returns the numbers of one step that can prevent a fire: its gap, its hold length, its spread. */
function leversOfStep(step: Step, k: number, gap: string): PatternLever[] {
  const path = ["steps", k] as const;
  return [
    ...(k === 0 ? [] : [{ path: [...path, "gap"], base: gap, rounding: "atMost", direction: 1 } as const]),
    ...("for" in step && step.for !== undefined
      ? [{ path: [...path, "for"], rounding: "atLeast", direction: -1 } as const]
      : []),
    ...("within" in step ? [{ path: [...path, "within"], rounding: "atMost", direction: 1 } as const] : []),
    ...(step.after === undefined
      ? []
      : [{ path: [...path, "after"], rounding: "atLeast", direction: -1 } as const]),
  ];
}

/** The registry record of sequences. */
export const record: PatternKindRecord<"sequence", SequenceProgram> = {
  compile: compileSequence,
  stepper: sequenceStepper,
  describe: describeSequence,
  offer: offerSequence,
  starters: sequenceStarters,
  carries: [],
  ...sequenceStudy,
  playedOn: ({ steps }, kit) => [...new Set(steps.flatMap(step => controlsPlayed(step, kit)))],
  maps: ["sequence"],
  firesLetGo: ({ steps }) => steps.at(-1)!.does === "release",
  levers: ({ gap, total, steps }) => [
    { path: ["gap"], rounding: "atMost", direction: 1 },
    ...(total === undefined ? [] : [{ path: ["total"], rounding: "atMost", direction: 1 } as const]),
    ...steps.flatMap((step, k) => leversOfStep(step, k, gap)),
  ],
  rungs: ({ steps }, kit) => steps.map(step => stepWords(step, kit)),
  made: ({ base }, { cells }) => cells[base + REACHED]!,
  total: ({ steps }) => steps.length,
};
