import { firstAbove, createGrowingClock, type Growth, type TakeClock } from "#core";

/** The groups of rows, in display order. */
export const TAPE_GROUPS = [
  "controls",
  "gates",
  "patterns",
  "moves",
  "stage",
  "game",
  "prompts",
  "time",
] as const;
export type TapeGroup = (typeof TAPE_GROUPS)[number];

/** The looks of a stretch. The legend explains them; they differ in shape, not only in colour. */
export type SpanLook =
  | "speed"
  | "named"
  | "down"
  | "facing"
  | "open"
  | "forgiven"
  | "forming"
  | "sustained"
  | "startup"
  | "active"
  | "recovery"
  | "lead"
  | "window";

/** The looks of a single frame of a row. */
export type MarkLook =
  | "fired"
  | "lapsed"
  | "performed"
  | "lost"
  | "beaten"
  | "answered"
  | "failed"
  /** A running game performed a move; it did so apart from the rules; it did not, and the rules did. */
  | "did"
  | "differs"
  | "absent";

/**
 * One row: stretches and marks as columns, in frame order; stretches never overlap. `to` is the first frame
 * after one.
 */
export interface TapeRow {
  readonly group: TapeGroup;
  readonly id: string;
  readonly name: string;
  readonly spanFrom: number[];
  /** Infinity while a stretch is open: it lasts to the end of the tape. */
  readonly spanTo: number[];
  readonly spanLook: SpanLook[];
  /** Text shown in a stretch if it fits; empty for none. */
  readonly spanText: string[];
  /** For a move, the stretches in which a request was buffered; they may overlap its timeline. */
  readonly waitFrom: number[];
  readonly waitTo: number[];
  readonly markFrame: number[];
  readonly markLook: MarkLook[];
  /** The note of a mark, for its sentence; −1 for a mark that is no event of the rules. */
  readonly markNote: number[];
  /** For a move's mark, the frame of its request; −1 for others. */
  readonly markMade: number[];
  /** Text shown beside a mark if it fits: a grade, or a difference from the rules. */
  readonly markText: string[];
  /** Analog values of a control, from each frame on, 0 to 1. Empty if it only was 0 or 1. */
  readonly valueFrame: number[];
  readonly value: number[];
  /** The growth of a forming stretch: a hold to its length, a charge along its curve. */
  readonly growth: Growth | undefined;
  /** The number of rows folded into this one; 0 for a regular row. */
  readonly folded: number;
}

/** The complete content of a tape, built from a trace. */
export interface TapeModel {
  readonly frames: number;
  readonly rateHz: number;
  readonly rows: readonly TapeRow[];
  readonly modeFrame: readonly number[];
  /** The name of the mode that begins on each of those frames. */
  readonly modeName: readonly string[];
  /** Stretches in which the game was stopped, by the take or by the stage; drawn over all rows. */
  readonly freezeFrom: readonly number[];
  readonly freezeTo: readonly number[];
  /** Frames before which time passed unrecorded, and that time in ms. */
  readonly gapFrame: readonly number[];
  readonly gapMs: readonly number[];
  /** The first frame on which the bodies are elsewhere than they were seen while it was played. */
  readonly otherwiseFrom?: number;
  /** The game clock of the run, for growth by age. */
  readonly clock: TakeClock;
}

/** An empty tape. */
export const EMPTY_TAPE: TapeModel = {
  frames: 0,
  rateHz: 60,
  rows: [],
  modeFrame: [],
  modeName: [],
  freezeFrom: [],
  freezeTo: [],
  gapFrame: [],
  gapMs: [],
  clock: createGrowingClock(),
};

/** Creates an empty row. */
export function createRow(
  group: TapeGroup,
  item: { readonly id: string; readonly name: string },
  growth?: Growth,
  folded = 0,
): TapeRow {
  return {
    group,
    id: item.id,
    name: item.name || item.id,
    spanFrom: [],
    spanTo: [],
    spanLook: [],
    spanText: [],
    waitFrom: [],
    waitTo: [],
    markFrame: [],
    markLook: [],
    markNote: [],
    markMade: [],
    markText: [],
    valueFrame: [],
    value: [],
    growth,
    folded,
  };
}

/** Returns the key of a row: its group and its id. */
export function keyOfRow(row: Pick<TapeRow, "group" | "id">): string {
  return `${row.group}:${row.id}`;
}

/**
 * Returns the index of a row by its key; otherwise the first of its group, for example when that is folded;
 * otherwise 0.
 */
export function findRow(rows: readonly TapeRow[], key: string): number {
  const exact = rows.findIndex(row => keyOfRow(row) === key);
  if (exact >= 0) return exact;
  return Math.max(
    0,
    rows.findIndex(row => key.startsWith(`${row.group}:`)),
  );
}

/** Returns whether two rows show the same stretches and marks. */
export function isSameRow(a: TapeRow, b: TapeRow): boolean {
  const isSame = (x: readonly unknown[], y: readonly unknown[]) =>
    x.length === y.length && x.every((value, k) => value === y[k]);
  return (
    isSame(a.spanFrom, b.spanFrom) &&
    isSame(a.spanTo, b.spanTo) &&
    isSame(a.spanLook, b.spanLook) &&
    isSame(a.waitFrom, b.waitFrom) &&
    isSame(a.waitTo, b.waitTo) &&
    isSame(a.markFrame, b.markFrame) &&
    isSame(a.markLook, b.markLook)
  );
}

/** Adds a stretch; with `to` Infinity it stays open until it is closed. */
export function addSpan(row: TapeRow, from: number, to: number, look: SpanLook, text = ""): void {
  row.spanFrom.push(from);
  row.spanTo.push(to);
  row.spanLook.push(look);
  row.spanText.push(text);
}

/** Closes the open stretch of a row, if any. A stretch of no frames is removed. */
export function closeSpan(row: TapeRow, frame: number): void {
  const last = row.spanTo.length - 1;
  if (last < 0 || row.spanTo[last] !== Infinity) return;
  row.spanTo[last] = frame;
  if (row.spanFrom[last]! < frame) return;
  row.spanFrom.pop();
  row.spanTo.pop();
  row.spanLook.pop();
  row.spanText.pop();
}

/** Adds a mark on one frame. */
export function addMark(
  row: TapeRow,
  frame: number,
  look: MarkLook,
  note: number,
  made = -1,
  text = "",
): void {
  row.markFrame.push(frame);
  row.markLook.push(look);
  row.markNote.push(note);
  row.markMade.push(made);
  row.markText.push(text);
}

/** Returns a row with only its stretches and marks in a range of frames. */
export function rowWithin(row: TapeRow, from: number, to: number): TapeRow {
  const cutTo = (starts: readonly number[], ends: readonly number[]) =>
    [firstAbove(ends, from), firstAbove(starts, to - 1)] as const;
  const [span, spanEnd] = cutTo(row.spanFrom, row.spanTo);
  const [wait, waitEnd] = cutTo(row.waitFrom, row.waitTo);
  const [mark, markEnd] = [firstAbove(row.markFrame, from - 1), firstAbove(row.markFrame, to - 1)];
  return {
    ...row,
    spanFrom: row.spanFrom.slice(span, spanEnd),
    spanTo: row.spanTo.slice(span, spanEnd),
    spanLook: row.spanLook.slice(span, spanEnd),
    spanText: row.spanText.slice(span, spanEnd),
    waitFrom: row.waitFrom.slice(wait, waitEnd),
    waitTo: row.waitTo.slice(wait, waitEnd),
    markFrame: row.markFrame.slice(mark, markEnd),
    markLook: row.markLook.slice(mark, markEnd),
    markNote: row.markNote.slice(mark, markEnd),
    markMade: row.markMade.slice(mark, markEnd),
    markText: row.markText.slice(mark, markEnd),
  };
}
