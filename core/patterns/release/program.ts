import type { PatternBase } from "../../program/program";

export interface ReleaseProgram extends PatternBase {
  readonly kind: "release";
  readonly control: number;
}
