import {
  isOfPress,
  edgesOf,
  firstNoteAfter,
  isOfGate,
  notes,
  stretchAt,
  type Fate,
  type Program,
  type Trace,
} from "#core";
import type { TapeStretchOfRows } from "./tapeView";
import { keyOfRow, type TapeModel, type TapeRow } from "./tapeRows";

/** Returns the note of the request of a move's mark. */
function findRequest(trace: Trace, move: number, made: number): number {
  for (let i = firstNoteAfter(trace, made - 1); i < trace.count && trace.frame[i] === made; i++)
    if (trace.kind[i] === notes.request.code && trace.subject[i] === move) return i;
  return -1;
}

/** Returns the note with the edges of a pattern's or move's mark; −1 for none. */
function sourceOf(trace: Trace, note: number): number {
  const subject = trace.subject[note]!;
  switch (trace.kind[note]) {
    case notes.fired.code:
      return note;
    case notes.performed.code:
      return findRequest(trace, subject, notes.performed.made(trace, note));
    case notes.lost.code:
      return findRequest(trace, subject, notes.lost.made(trace, note));
    default:
      return -1;
  }
}

/**
 * Returns the fate for a note of the tape: of the latest press of a fire, a request or an answer, or, for a
 * lapse, of the last press of its controls. Undefined if there is none (for example a direction alone).
 */
export function fateOfNote(
  fates: readonly Fate[],
  program: Program,
  trace: Trace,
  note: number,
): Fate | undefined {
  const kind = trace.kind[note];
  const subject = trace.subject[note]!;
  if (kind === notes.lapsed.code) {
    return fates.findLast(fate =>
      fate.lapses.some(lapse => lapse.pattern === subject && lapse.frame === trace.frame[note]),
    );
  }
  if (kind === notes.prompt.code)
    return fates.findLast(fate =>
      fate.uses.some(
        use => use.kind === "prompt" && use.index === subject && use.frame === trace.frame[note],
      ),
    );
  const source = sourceOf(trace, note);
  if (source < 0) return undefined;
  const edges = edgesOf(trace, source);
  return fates.findLast(({ control, frame }) => edges.some(key => isOfPress(program, key, control, frame)));
}

/** Returns the fate of a control's press that is down on a frame. */
export function fateOfPress(
  fates: readonly Fate[],
  program: Program,
  row: TapeRow,
  frame: number,
): Fate | undefined {
  const control = program.controls.findIndex(item => item.id === row.id);
  const span = stretchAt(row.spanFrom, row.spanTo, frame);
  return fates.find(fate => fate.control === control && fate.frame === row.spanFrom[span]);
}

/** A point on the tape that a line joins. */
export interface TapePoint {
  readonly row: number;
  readonly frame: number;
}

/** Returns the path of a press, in order: the press, the fires, the requests, their ends. */
export function pathOfFate(program: Program, model: TapeModel, fate: Fate): TapePoint[] {
  const rowOf = (group: TapeRow["group"], id: string | undefined) =>
    model.rows.findIndex(row => row.group === group && row.id === id);
  const points: TapePoint[] = [
    { row: rowOf("controls", program.controls[fate.control]?.id), frame: fate.frame },
  ];
  const end = fate.uses.at(-1) ?? fate.losses.at(-1);
  const made = end?.made ?? -1;
  const fire = fate.fires.findLast(item => made < 0 || item.frame === made);
  if (fire) points.push({ row: rowOf("patterns", program.patterns[fire.pattern]?.id), frame: fire.frame });
  if (end) {
    const isPrompt = "kind" in end && end.kind === "prompt";
    const index = "move" in end ? end.move : end.index;
    const row = isPrompt
      ? rowOf("prompts", program.prompts[index]?.id)
      : rowOf("moves", program.moves[index]?.id);
    points.push({ row, frame: end.made });
    if (end.frame !== end.made) points.push({ row, frame: end.frame });
  }
  return points.filter(point => point.row >= 0);
}

/** The frames shown before and after the path of a press. */
const BEFORE = 8;
const AFTER = 24;

/** Returns the range of frames and rows that shows a whole path, which must not be empty. */
export function placeOfWay(way: readonly TapePoint[]): TapeStretchOfRows {
  const rows = way.map(point => point.row);
  const frames = way.map(point => point.frame);
  return {
    from: Math.max(0, Math.min(...frames) - BEFORE),
    to: Math.max(...frames) + AFTER,
    firstRow: Math.min(...rows),
    lastRow: Math.max(...rows),
  };
}

/**
 * Returns the keys of the rows involved in a press's fate: those of its path, and of the gates it was lost
 * to.
 */
export function rowsOfFate(program: Program, whole: TapeModel, fate: Fate): string[] {
  const way = pathOfFate(program, whole, fate).map(point => keyOfRow(whole.rows[point.row]!));
  const gates = fate.losses.flatMap(loss => (isOfGate(loss) ? program.gates[loss.because]!.id : []));
  return [...way, ...gates.map(id => keyOfRow({ group: "gates", id }))];
}
