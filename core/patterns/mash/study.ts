import { pressesInTurn, SHORT } from "../scripts";
import type { PatternOf } from "../../kit/schema";
import type { PatternStudy } from "../kind";
import type { MashProgram } from "./program";

/** The traits of this kind for those who draw, try and study it. */
export const mashStudy: PatternStudy<PatternOf<"mash">, MashProgram> = {
  meter: "own",
  promptWord: "haul, one after the other",
  wanted: ({ controls }) => controls,
  scripts: ({ controls, count }) => [pressesInTurn(controls, count, SHORT)],
  toHold({ controls, count: _count, within, alternate: _alternate, ...rest }) {
    return { ...rest, kind: "hold", control: controls[0]!, for: within, fire: "reach" };
  },
};
