import { SHORT } from "../scripts";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { ChordProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const chordStudy: PatternStudy<PatternOf<"chord">, ChordProgram> = {
  meter: "own",
  promptWord: "press",
  wanted: ({ controls }) => controls,
  scripts({ controls, spread: written, for: held }, _kit, lengthOf) {
    const spread = written === undefined ? 3 : lengthOf(written, "atMost");
    const frames = (held === undefined ? 0 : lengthOf(held, "atLeast")) + SHORT;
    return [0, spread].map(apart =>
      controls.map((control, k) => ({ control, from: k === 0 ? 0 : apart, to: apart + frames })),
    );
  },
  pressFrames: () => 4 * SHORT,
  presses: "together",
  held: pattern => (pattern.for === undefined ? [] : pattern.controls),
};
