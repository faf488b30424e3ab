import { tapsStudy } from "./study";
import type { Starter } from "../../kit/starter";
import type { PatternKindRecord } from "../kind";
import { compileTaps } from "./compile";
import { describeTaps, offerTaps } from "./describe";
import { tapsMade, tapsStepper } from "./step";
import type { TapsProgram } from "./program";

export { tapsSchema as schema } from "./schema";

/** Starting points for a new count of taps. */
const starters: readonly Starter[] = [
  {
    id: "double",
    words: "Double tap",
    line: "twice within a moment; the single tap is not kept waiting",
    make(control, take) {
      const id = take("pattern", `${control.name} twice`);
      return {
        patterns: [
          {
            id,
            name: `${control.name} twice`,
            kind: "taps",
            control: control.id,
            count: 2,
            gap: "14f",
            answer: "nth",
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];

/** The registry record of counted taps. */
export const record: PatternKindRecord<"taps", TapsProgram> = {
  compile: compileTaps,
  stepper: tapsStepper,
  describe: describeTaps,
  offer: offerTaps,
  starters,
  carries: ["count"],
  ...tapsStudy,
  playedOn: ({ control }) => [control],
  maps: ["taps"],
  firesLetGo: ({ answer }) => answer === "final",
  levers: (_pattern, why) => [
    { path: [why === "too-long" ? "max" : "gap"], rounding: "atMost", direction: 1 },
  ],
  pulls: [{ field: "gap", rounding: "atMost", since: "last-press", extra: 1, words: "gap of" }],
  rungs: ({ count }) => Array.from({ length: count }, (_, k) => `tap ${k + 1}`),
  made: tapsMade,
  total: ({ count }) => count,
};
