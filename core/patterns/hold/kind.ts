import { holdStudy } from "./study";
import { growthTo } from "../growth";
import { inFrames } from "../../time/clock";
import { writtenEdge, type PatternKindRecord } from "../kind";
import { compileHold } from "./compile";
import { describeHold, offerHold } from "./describe";
import type { HoldProgram } from "./program";
import { holdStepper } from "./step";
import { holdStarters } from "./starters";

export { holdSchema as schema } from "./schema";

/** The registry record of holds. */
export const record: PatternKindRecord<"hold", HoldProgram> = {
  compile: compileHold,
  stepper: holdStepper,
  describe: describeHold,
  offer: offerHold,
  starters: holdStarters,
  carries: [],
  ...holdStudy,
  playedOn: ({ control }) => [control],
  maps: ["press-length"],
  firesLetGo: ({ onReach }) => !onReach,
  growth: ({ forTicks, isReal }) => growthTo(forTicks, isReal),
  answers: ({ forTicks, onReach, maxTicks }) => ({
    from: Math.max(1, inFrames(forTicks)),
    to: onReach ? Infinity : inFrames(maxTicks),
  }),
  edges: pattern => [
    { path: ["for"], written: pattern.for, rounding: "atLeast", label: "length" },
    ...writtenEdge("max", pattern.max, "atMost", "longest"),
  ],
  limits: ({ fire }) => (fire === "release" ? { upper: "max", lower: "for" } : { lower: "for" }),
  levers: (_pattern, why) =>
    why === "too-long"
      ? [{ path: ["max"], rounding: "atMost", direction: 1 }]
      : [{ path: ["for"], rounding: "atLeast", direction: -1 }],
  pulls: [{ field: "for", rounding: "atLeast", since: "start", extra: 0, words: "held for" }],
};
