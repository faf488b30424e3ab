import { pressesInTurn, SHORT } from "../scripts";
import { countWords } from "../../formats/words";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { TapsProgram } from "./program";

/** The most counts below the whole one that are tried. */
const MAX_FEWER = 4;

/** The traits of this kind for those who draw, try and study it. */
export const tapsStudy: PatternStudy<PatternOf<"taps">, TapsProgram> = {
  meter: "own",
  promptWord: "press",
  wanted: ({ control }) => [control],
  firedWords: ({ count = 0 }) => `, ${countWords(count, "tap")}`,
  scripts({ control, count, gap, answer }, _kit, lengthOf) {
    const apart = [SHORT, lengthOf(gap, "atMost")];
    const whole = apart.map(frames => pressesInTurn([control], count, Math.max(SHORT, frames)));
    // Fewer taps fire as well, unless the last one is waited for.
    const fewer = answer === "nth" ? 0 : Math.min(count - 1, MAX_FEWER);
    const short = Array.from({ length: fewer }, (_, k) => pressesInTurn([control], k + 1, SHORT));
    return [...whole, ...short];
  },
  presses: "apart",
  windowFields: ["gap"],
  tapGapField: "gap",
  whyNever: (pattern, count) => (count > pattern.count ? `counts only to ${pattern.count}` : undefined),
};
