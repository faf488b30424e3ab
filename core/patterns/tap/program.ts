import type { PatternBase } from "../../program/program";

export interface TapProgram extends PatternBase {
  readonly kind: "tap";
  readonly control: number;
  readonly maxTicks: number;
}
