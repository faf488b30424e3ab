import type { PatternBase } from "../../run/program";

export interface ReleaseProgram extends PatternBase {
  readonly kind: "release";
  readonly control: number;
}
