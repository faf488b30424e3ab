import { chargeStudy } from "./study";
import { inFrames } from "../../time/clock";
import { writtenEdge, type LengthEdge, type PatternKindRecord } from "../kind";
import { compileCharge } from "./compile";
import { describeCharge, offerCharge } from "./describe";
import { chargeGrowth, chargeStepper } from "./step";
import type { ChargeProgram } from "./program";
import { chargeStarters } from "./starters";

export { chargeSchema as schema } from "./schema";

/** The registry record of charges. */
export const record: PatternKindRecord<"charge", ChargeProgram> = {
  compile: compileCharge,
  stepper: chargeStepper,
  describe: describeCharge,
  offer: offerCharge,
  starters: chargeStarters,
  carries: ["age", "ratio", "level", "value"],
  ...chargeStudy,
  playedOn: ({ control }) => [control],
  maps: ["press-length", "curve"],
  firesLetGo: ({ fire }) => fire !== "full",
  growth: chargeGrowth,
  answers({ fire, minTicks, fullTicks, limitTicks }) {
    if (fire === "full") return { from: Math.max(1, inFrames(fullTicks)), to: Infinity };
    const isEndless = fire === "either" && limitTicks >= fullTicks;
    return { from: Math.max(1, inFrames(minTicks)), to: isEndless ? Infinity : inFrames(limitTicks) };
  },
  edges: ({ min, full, levels, limit }) => [
    ...writtenEdge("min", min, "atLeast", "shortest"),
    ...writtenEdge("full", full, "atLeast", "full"),
    ...(levels ?? []).map(({ name, at }, k): LengthEdge => ({
      path: ["levels", k, "at"],
      written: at,
      rounding: "atLeast",
      label: name,
    })),
    ...writtenEdge("limit", limit, "atMost", "lost past"),
  ],
  limits: ({ fire }) => ({ upper: "limit", lower: fire === "full" ? "full" : "min" }),
  levers({ fire }, why) {
    if (why === "too-long") return [{ path: ["limit"], rounding: "atMost", direction: 1 }];
    return [{ path: [fire === "full" ? "full" : "min"], rounding: "atLeast", direction: -1 }];
  },
  pulls: [{ field: "full", rounding: "atLeast", since: "start", extra: 0, words: "full at" }],
};
