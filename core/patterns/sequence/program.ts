import type { PatternBase } from "../../program/program";

export type StepProgram = {
  readonly gapTicks: number;
  readonly afterTicks: number;
  /** Marks sources whose current press a later hold or together step could still use. */
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
  /** Whether a step waits for a direction to have been held. */
  readonly isFaced: boolean;
  /** Whether a step must come some time after the one before. */
  readonly isSpaced: boolean;
  /** The controls of the steps that wait for a hold. */
  readonly heldControls: readonly number[];
  /** Controls whose press breaks a choice; empty if other presses are ignored. */
  readonly breakers: readonly number[];
  /** Sticks its steps name; a step's slot is an index into this list. */
  readonly sticks: readonly number[];
  /** The index of this sequence's list of choices in the state. */
  readonly choices: number;
}
