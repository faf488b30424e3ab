import { onePress, SHORT } from "../scripts";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { PressProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const pressStudy: PatternStudy<PatternOf<"press">, PressProgram> = {
  meter: "none",
  promptWord: "press",
  wanted: ({ control }) => [control],
  firedWords: ({ repeat }) => (repeat ? `, repeat ${repeat}` : ""),
  scripts: ({ control }) => [onePress(control, 1), onePress(control, SHORT)],
  pressFrames: () => SHORT,
};
