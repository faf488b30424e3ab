import type { PatternBase } from "../../program/program";

export interface MashProgram extends PatternBase {
  readonly kind: "mash";
  readonly count: number;
  readonly withinTicks: number;
  readonly alternate: boolean;
}
