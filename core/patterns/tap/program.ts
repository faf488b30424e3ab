import type { PatternBase } from "../../run/program";

export interface TapProgram extends PatternBase {
  readonly kind: "tap";
  readonly control: number;
  readonly maxTicks: number;
}
