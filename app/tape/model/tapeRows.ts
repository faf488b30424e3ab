import { firstAbove, createGrowingClock, type Growth, type TakeClock } from "#core";

/** The groups of rows, in the order in which they stand. */
export const TAPE_GROUPS = ["controls", "gates", "patterns", "moves", "prompts", "time"] as const;
export type TapeGroup = (typeof TAPE_GROUPS)[number];

/** How a stretch of a row looks; what each means is told in the legend and, by shape, without colour. */
export type SpanLook =
  | "speed"
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

/** How a single frame of a row looks. */
export type MarkLook = "fired" | "lapsed" | "performed" | "lost" | "beaten" | "answered" | "failed";

/** One row: stretches and marks as columns, in frame order; stretches never overlap. `to` is the first frame after one. */
export interface TapeRow {
  readonly group: TapeGroup;
  readonly id: string;
  readonly name: string;
  readonly spanFrom: number[];
  /** Infinity while a stretch is still open: it lasts to the end of what there is. */
  readonly spanTo: number[];
  readonly spanLook: SpanLook[];
  /** Words to stand in a stretch where they fit; empty for none. */
  readonly spanText: string[];
  /** For a move, the stretches in which a press of it was remembered; they may lie beside its timeline. */
  readonly waitFrom: number[];
  readonly waitTo: number[];
  readonly markFrame: number[];
  readonly markLook: MarkLook[];
  /** The note a mark comes from, for the sentence about it. */
  readonly markNote: number[];
  /** For a move's mark, the frame on which it was asked for; −1 for others. */
  readonly markMade: number[];
  /** Words to stand beside a mark where they fit: a grade. */
  readonly markText: string[];
  /** Analog values of a control: from each frame on, 0 to 1. Empty where it only ever was all or nothing. */
  readonly valueFrame: number[];
  readonly value: number[];
  /** How what is forming grows: a hold to its length, a charge along its curve. */
  readonly growth: Growth | undefined;
  /** How many rows are folded into this one; 0 for a row of its own. */
  readonly folded: number;
}

/** Everything the tape draws, made of a trace. */
export interface TapeModel {
  readonly frames: number;
  readonly rateHz: number;
  readonly rows: readonly TapeRow[];
  readonly modeFrame: readonly number[];
  /** The name of the mode that begins on each of those frames. */
  readonly modeName: readonly string[];
  /** Stretches in which the game stood still, by the take or by the stage: over all rows. */
  readonly freezeFrom: readonly number[];
  readonly freezeTo: readonly number[];
  /** The game clock as it ran, for what grows by age. */
  readonly clock: TakeClock;
}

/** A tape without anything on it. */
export const EMPTY_TAPE: TapeModel = {
  frames: 0,
  rateHz: 60,
  rows: [],
  modeFrame: [],
  modeName: [],
  freezeFrom: [],
  freezeTo: [],
  clock: createGrowingClock(),
};

/** A row with nothing on it yet. */
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

/** What a row is known by wherever rows are listed: its group and its id. */
export function keyOfRow(row: Pick<TapeRow, "group" | "id">): string {
  return `${row.group}:${row.id}`;
}

/** The place of a row by its key; failing that the first of its group, as when that is folded; failing that 0. */
export function findRow(rows: readonly TapeRow[], key: string): number {
  const exact = rows.findIndex(row => keyOfRow(row) === key);
  if (exact >= 0) return exact;
  return Math.max(
    0,
    rows.findIndex(row => key.startsWith(`${row.group}:`)),
  );
}

/** Do two rows show the same stretches and marks? */
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

/** Closes the open stretch of a row, if there is one. One that never came to last a frame is taken away. */
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

/** A row with only those of its stretches and marks that touch frames from one up to another. */
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
