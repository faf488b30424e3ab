import { onePress, SHORT } from "../scripts";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { TapProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const tapStudy: PatternStudy<PatternOf<"tap">, TapProgram> = {
  meter: "own",
  promptWord: "press",
  wanted: ({ control }) => [control],
  scripts: ({ control, max }, _kit, lengthOf) => [
    onePress(control, 1),
    onePress(control, lengthOf(max, "atMost")),
  ],
  pressFrames: () => SHORT,
  windowFields: ["max"],
};
