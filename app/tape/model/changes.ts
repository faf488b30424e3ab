import { diffTraces, type Difference, type Program, type Trace } from "#core";
import type { TapeModel } from "./tapeRows";

/** A change marked on the tape: its row, its old and its new frame (−1 if absent). */
export interface TapeChange {
  readonly row: number;
  readonly what: Difference["what"];
  readonly wasFrame: number;
  readonly isFrame: number;
}

/** Returns what is new, gone or moved on the tape relative to an earlier trace. */
export function listChanges(model: TapeModel, program: Program, before: Trace, now: Trace): TapeChange[] {
  return diffTraces(before, now).flatMap(difference => {
    const isPrompt = difference.kind === "prompt";
    const id = (isPrompt ? program.prompts : program.moves)[difference.index]?.id;
    const row = model.rows.findIndex(
      item => item.group === (isPrompt ? "prompts" : "moves") && item.id === id,
    );
    return row < 0
      ? []
      : [{ row, what: difference.what, wasFrame: difference.wasFrame, isFrame: difference.isFrame }];
  });
}
