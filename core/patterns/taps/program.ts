import type { PatternBase } from "../../program/program";

export interface TapsProgram extends PatternBase {
  readonly kind: "taps";
  readonly control: number;
  readonly count: number;
  readonly gapTicks: number;
  readonly maxTicks: number;
  readonly answer: "nth" | "each" | "final";
}
