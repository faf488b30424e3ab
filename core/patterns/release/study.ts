import { onePress, SHORT } from "../scripts";
import { roundTwo } from "../../formats/words";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { ReleaseProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const releaseStudy: PatternStudy<PatternOf<"release">, ReleaseProgram> = {
  meter: "none",
  promptWord: "press",
  wanted: ({ control }) => [control],
  firedWords: ({ held = 0 }) => `, held ${roundTwo(held)}f`,
  scripts: ({ control }) => [onePress(control, 1), onePress(control, SHORT)],
  pressFrames: () => SHORT,
};
