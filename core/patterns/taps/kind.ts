import { tapsStudy } from "./study";
import type { PatternKindRecord } from "../kind";
import { compileTaps } from "./compile";
import { describeTaps, offerTaps } from "./describe";
import { tapsMade, tapsStepper } from "./step";
import type { TapsProgram } from "./program";
import { tapsStarters } from "./starters";

export { tapsSchema as schema } from "./schema";

/** The registry record of counted taps. */
export const record: PatternKindRecord<"taps", TapsProgram> = {
  compile: compileTaps,
  stepper: tapsStepper,
  describe: describeTaps,
  offer: offerTaps,
  starters: tapsStarters,
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
