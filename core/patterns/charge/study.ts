import { onePress, SHORT } from "../scripts";
import { countWords, roundTwo } from "../../formats/words";
import { TICKS } from "../../time/clock";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { ChargeProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const chargeStudy: PatternStudy<PatternOf<"charge">, ChargeProgram> = {
  meter: "body",
  promptWord: "press",
  wanted: ({ control }) => [control],
  firedWords: ({ age = 0, level = 0, value = 0 }) =>
    `, charged ${roundTwo(age)}f, level ${level}, worth ${roundTwo(value)}`,
  scripts({ control, full: written, min, levels = [] }, _kit, lengthOf) {
    const full = lengthOf(written, "atLeast");
    const least = min === undefined ? 1 : lengthOf(min, "atLeast");
    const reached = levels.map(({ at }) => lengthOf(at, "atLeast"));
    return [...new Set([least, full, full + 1, ...reached])].map(frames => onePress(control, frames));
  },
  pressFrames: ({ full }, lengthOf) => lengthOf(full, "atLeast") + SHORT,
  held: ({ control }) => [control],
  warn: ({ limitTicks, fullTicks }) =>
    limitTicks < fullTicks
      ? { code: "never-full", field: "limit", limit: limitTicks / TICKS, full: fullTicks / TICKS }
      : undefined,
  whyNever: ({ levels }, _count, level) =>
    level > levels.length ? `has ${countWords(levels.length, "level")}` : undefined,
};
