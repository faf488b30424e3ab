import type { PatternBase } from "../../program/program";
import type { Easing } from "../../curve/easing";

export interface LevelProgram {
  readonly name: string;
  readonly atTicks: number;
}

export interface ChargeProgram extends PatternBase {
  readonly kind: "charge";
  readonly control: number;
  readonly fromTicks: number;
  readonly fullTicks: number;
  readonly minTicks: number;
  readonly limitTicks: number;
  readonly levels: readonly LevelProgram[];
  readonly easing: Easing;
  readonly low: number;
  readonly high: number;
  readonly fire: "release" | "full" | "either";
}
