import { holdStudy } from "./study";
import type { Starter } from "../../kit/starter";
import { growthTo } from "../growth";
import { inFrames } from "../../time/clock";
import { writtenEdge, type PatternKindRecord } from "../kind";
import { compileHold } from "./compile";
import { describeHold, offerHold } from "./describe";
import type { HoldProgram } from "./program";
import { holdStepper } from "./step";

export { holdSchema as schema } from "./schema";

/** Starting points for a new hold. */
const starters: readonly Starter[] = [
  {
    id: "hold",
    words: "Hold",
    line: "held long enough, with a meter that fills",
    make(control, take) {
      const id = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id, name: `${control.name} hold`, kind: "hold", control: control.id, for: "30f", fire: "reach" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "tap-or-hold",
    words: "Tap or hold",
    line: "two meanings on one button, and no length of press left over",
    make(control, take) {
      const tap = take("pattern", `${control.name} tap`);
      const hold = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id: tap, name: `${control.name} tap`, kind: "tap", control: control.id, max: "11f" },
          {
            id: hold,
            name: `${control.name} hold`,
            kind: "hold",
            control: control.id,
            for: "12f",
            fire: "reach",
          },
        ],
        opens: `pattern:${tap}`,
      };
    },
  },
];

/** The registry record of holds. */
export const record: PatternKindRecord<"hold", HoldProgram> = {
  compile: compileHold,
  stepper: holdStepper,
  describe: describeHold,
  offer: offerHold,
  starters,
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
