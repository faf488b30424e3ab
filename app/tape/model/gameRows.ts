import { firstAbove, landingFrame, nameOf, type Kit, type Program, type Trace } from "#core";
import { createDifferenceReader, framesLater, type Act, type PairedAct } from "#link";
import { addMark, createRow, type MarkLook, type TapeRow } from "./tapeRows";

/** The rows of what a running game itself performed, each act compared with the rules. */
export interface GameRows {
  /** One for each move that the game reports, empty if it never performed it. */
  readonly rows: readonly TapeRow[];
  /** Reads acts and notes that are new. An act is compared once nothing later can change its partner. */
  readonly extend: (trace: Trace, acts: readonly Act[], isEnd?: boolean) => void;
}

/** Returns the words beside a mark; none for an act that agrees with the rules. */
function wordsOf(pair: PairedAct): string {
  const later = framesLater(pair);
  if (later === undefined) return pair.game === undefined ? "only the rules" : "only the game";
  return later === 0 ? "" : `${Math.abs(later)}f ${later > 0 ? "later" : "earlier"} than the rules`;
}

/** Inserts a mark at its place in the order of frames. */
function insertMark(row: TapeRow, frame: number, look: MarkLook, words: string): void {
  const at = firstAbove(row.markFrame, frame);
  row.markFrame.splice(at, 0, frame);
  row.markLook.splice(at, 0, look);
  row.markNote.splice(at, 0, -1);
  row.markMade.splice(at, 0, -1);
  row.markText.splice(at, 0, words);
}

/** Creates the rows of a game. `gameHz` is its rate, in which its acts are counted; `reported`: the moves that it reports, all without it. */
export function createGameRows(
  kit: Kit,
  program: Program,
  gameHz: number,
  reported?: ReadonlySet<string>,
): GameRows {
  const rows = program.moves
    .filter(({ id }) => !reported || reported.has(id))
    .map(({ id }) => createRow("game", { id, name: `${nameOf(kit, "moves", id)}, in the game` }));
  const byMove = new Map(rows.map(row => [row.id, row]));
  const reader = createDifferenceReader(program, gameHz, reported);
  let read = 0;

  const mark = (pair: PairedAct) => {
    const row = byMove.get(pair.id);
    if (!row) return;
    if (pair.game === undefined) return insertMark(row, pair.rules!, "absent", wordsOf(pair));
    const at = firstAbove(row.markFrame, pair.game - 1);
    if (framesLater(pair) === 0 || row.markFrame[at] !== pair.game) return;
    row.markLook[at] = "differs";
    row.markText[at] = wordsOf(pair);
  };

  return {
    rows,
    extend(trace, acts, isEnd) {
      for (; read < acts.length; read++) {
        const { id, f } = acts[read]!;
        const row = byMove.get(id);
        if (row) addMark(row, landingFrame(f, program.rateHz, gameHz), "did", -1);
      }
      reader.extend(trace, acts, isEnd).forEach(mark);
    },
  };
}
