import { pressesInTurn, SHORT } from "../scripts";
import { countWords } from "../../formats/words";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { TapsProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const tapsStudy: PatternStudy<PatternOf<"taps">, TapsProgram> = {
  meter: "own",
  promptWord: "press",
  wanted: ({ control }) => [control],
  firedWords: ({ count = 0 }) => `, ${countWords(count, "tap")}`,
  scripts({ control, count, gap }, _kit, lengthOf) {
    const apart = [SHORT, lengthOf(gap, "atMost")];
    return apart.map(frames => pressesInTurn([control], count, Math.max(SHORT, frames)));
  },
  presses: "apart",
  windowFields: ["gap"],
  tapGapField: "gap",
  whyNever: (pattern, count) => (count > pattern.count ? `counts only to ${pattern.count}` : undefined),
};
