import { sequenceScripts } from "./scripts";
import { TICKS } from "../../time/clock";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { SequenceProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const sequenceStudy: PatternStudy<PatternOf<"sequence">, SequenceProgram> = {
  meter: "own",
  promptWord: "in this order",
  wanted: ({ steps }) => steps.flatMap(step => ("control" in step ? [step.control] : [])),
  scripts: sequenceScripts,
  presses: "apart",
  held: ({ steps }) => steps.flatMap(step => ("hold" in step ? [step.hold] : [])),
  windowFields: ["gap"],
  warn({ steps }) {
    const tight = steps.findIndex((step, k) => k > 0 && step.afterTicks > step.gapTicks);
    if (tight < 0) return undefined;
    const { afterTicks, gapTicks } = steps[tight]!;
    const reason = `step ${tight + 1} must come both after ${afterTicks / TICKS} f and within ${gapTicks / TICKS} f`;
    return { code: "never-fires", reason };
  },
};
