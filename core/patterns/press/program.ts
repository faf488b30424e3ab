import type { PatternBase } from "../../program/program";

export interface RepeatProgram {
  readonly afterTicks: number;
  readonly everyTicks: number;
}

export interface PressProgram extends PatternBase {
  readonly kind: "press";
  readonly control: number;
  readonly repeat: RepeatProgram | null;
}
