import type { PatternBase } from "../../run/program";

export type StepProgram = {
  readonly gapTicks: number;
  readonly afterTicks: number;
  /** Sources whose present press a later hold or together step could still use. */
  readonly laterSources: readonly boolean[];
} & (
  | { readonly does: "press" | "release"; readonly control: number }
  | { readonly does: "hold"; readonly control: number; readonly forTicks: number }
  | { readonly does: "dir"; readonly stick: number; readonly slot: number; readonly digit: number }
  | {
      readonly does: "face";
      readonly stick: number;
      readonly slot: number;
      readonly digit: number;
      readonly forTicks: number;
    }
  | { readonly does: "together"; readonly controls: readonly number[]; readonly withinTicks: number }
);

export interface SequenceProgram extends PatternBase {
  readonly kind: "sequence";
  readonly steps: readonly StepProgram[];
  readonly totalTicks: number;
  /** Controls whose press spoils a choice; empty when others are ignored. */
  readonly breakers: readonly number[];
  /** Sticks its steps name; a step's slot is the place in this list. */
  readonly sticks: readonly number[];
  /** Which list of choices in the state is this sequence's own. */
  readonly choices: number;
}
