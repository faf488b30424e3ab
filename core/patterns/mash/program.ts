import type { PatternBase } from "../../run/program";

export interface MashProgram extends PatternBase {
  readonly kind: "mash";
  readonly count: number;
  readonly withinTicks: number;
  readonly alternate: boolean;
}
