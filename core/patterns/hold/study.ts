import { onePress, SHORT } from "../scripts";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { HoldProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const holdStudy: PatternStudy<PatternOf<"hold">, HoldProgram> = {
  meter: "body",
  promptWord: "hold",
  wanted: ({ control }) => [control],
  scripts({ control, for: written, max }, _kit, lengthOf) {
    const least = lengthOf(written, "atLeast");
    const most = max === undefined ? least + 1 : lengthOf(max, "atMost");
    return [least, least + 1, most].map(frames => onePress(control, frames));
  },
  pressFrames: (pattern, lengthOf) => lengthOf(pattern.for, "atLeast") + SHORT,
  held: ({ control }) => [control],
};
