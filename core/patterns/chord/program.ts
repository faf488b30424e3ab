import type { PatternBase } from "../../run/program";

export interface ChordProgram extends PatternBase {
  readonly kind: "chord";
  readonly spreadTicks: number;
  /** −1 without a hold after it. */
  readonly forTicks: number;
}
