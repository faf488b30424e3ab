import type { PatternBase } from "../../program/program";

export interface HoldProgram extends PatternBase {
  readonly kind: "hold";
  readonly control: number;
  readonly forTicks: number;
  readonly onReach: boolean;
  readonly maxTicks: number;
  /** 0 if it does not repeat. */
  readonly everyTicks: number;
}
