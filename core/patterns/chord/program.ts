import type { PatternBase } from "../../program/program";

export interface ChordProgram extends PatternBase {
  readonly kind: "chord";
  readonly spreadTicks: number;
  /** −1 if the chord need not be held. */
  readonly forTicks: number;
}
