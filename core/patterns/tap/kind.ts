import { tapStudy } from "./study";
import { growthTo } from "../growth";
import { inFrames } from "../../time/clock";
import type { PatternKindRecord } from "../kind";
import { compileTap } from "./compile";
import { describeTap, offerTap } from "./describe";
import type { TapProgram } from "./program";
import { tapStepper } from "./step";

export { tapSchema as schema } from "./schema";

/** The registry record of taps of one press. */
export const record: PatternKindRecord<"tap", TapProgram> = {
  compile: compileTap,
  stepper: tapStepper,
  describe: describeTap,
  offer: offerTap,
  starters: [],
  carries: [],
  ...tapStudy,
  playedOn: ({ control }) => [control],
  maps: ["press-length"],
  firesLetGo: () => true,
  growth: ({ maxTicks, isReal }) => growthTo(maxTicks, isReal),
  answers: ({ maxTicks }) => ({ from: 1, to: inFrames(maxTicks) }),
  edges: ({ max }) => [{ path: ["max"], written: max, rounding: "atMost", label: "longest tap" }],
  limits: () => ({ upper: "max" }),
  levers: () => [{ path: ["max"], rounding: "atMost", direction: 1 }],
  pulls: [{ field: "max", rounding: "atMost", since: "start", extra: 1, words: "tapped within" }],
};
