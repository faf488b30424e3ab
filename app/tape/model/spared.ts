import { notes, type Program, type Trace } from "#core";
import type { TapeRow } from "./tapeRows";

/** A loss that stands on the tape, with how many of its presses nothing has used. */
interface Mark {
  readonly row: TapeRow;
  readonly at: number;
  unused: number;
}

/**
 * Tells lost presses from requests that came to nothing while their presses were used by another move or answered a
 * prompt, sooner or later: those are marked as beaten. The same as listFates says of the presses, note by note as the
 * trace grows.
 */
export function followSpared(program: Program) {
  /** The edges of requests that are not over, by frame and move. */
  const edgesOf = new Map<number, readonly number[]>();
  const firedNow = new Map<number, readonly number[]>();
  const used = new Set<number>();
  const lostWith = new Map<number, Mark[]>();
  let firedFrame = -1;

  const pressesAt = (trace: Trace, note: number): number[] => {
    const at = trace.at[note]!;
    const presses: number[] = [];
    for (let k = 1; k <= trace.payload[at]!; k++) {
      const key = trace.payload[at + k]!;
      if (key % program.sourceCount < program.controls.length) presses.push(key);
    }
    return presses;
  };
  const keyOf = (move: number, made: number) => made * program.moves.length + move;

  function spend(edges: readonly number[]): void {
    for (const key of edges) {
      if (used.has(key)) continue;
      used.add(key);
      for (const mark of lostWith.get(key) ?? [])
        if (--mark.unused === 0) mark.row.markLook[mark.at] = "beaten";
      lostWith.delete(key);
    }
  }

  return {
    fire(trace: Trace, note: number): void {
      if (trace.frame[note] !== firedFrame) firedNow.clear();
      firedFrame = trace.frame[note]!;
      firedNow.set(trace.subject[note]!, pressesAt(trace, note));
    },
    answer(prompt: number, frame: number): void {
      if (frame !== firedFrame) return;
      const asked = program.prompts[prompt]!.ask.find(pattern => firedNow.has(pattern));
      if (asked !== undefined) spend(firedNow.get(asked)!);
    },
    ask(trace: Trace, note: number): void {
      edgesOf.set(keyOf(trace.subject[note]!, trace.frame[note]!), pressesAt(trace, note));
    },
    perform(move: number, made: number): void {
      const key = keyOf(move, made);
      spend(edgesOf.get(key) ?? []);
      edgesOf.delete(key);
    },
    /** The look of the mark about to be added to a row for a loss. */
    lose(trace: Trace, note: number, row: TapeRow): "lost" | "beaten" {
      const key = keyOf(trace.subject[note]!, trace.payload[trace.at[note]!]!);
      const edges = edgesOf.get(key) ?? [];
      edgesOf.delete(key);
      const open = edges.filter(edge => !used.has(edge));
      if (edges.length === 0) return trace.payload[trace.at[note]! + 1] === notes.BEATEN ? "beaten" : "lost";
      if (open.length === 0) return "beaten";
      const mark: Mark = { row, at: row.markFrame.length, unused: open.length };
      for (const edge of open) lostWith.set(edge, [...(lostWith.get(edge) ?? []), mark]);
      return "lost";
    },
  };
}
