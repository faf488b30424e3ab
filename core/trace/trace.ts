import { firstAbove } from "../time/rising";

/** The codes of the kinds of note, as the steppers write them. core/trace/notes describes their contents. */
export const MODE = 0;
export const GATE = 1;
export const FIRE = 2;
export const LAPSE = 3;
export const PROMPT = 4;
export const PERFORMED = 5;
export const LOST = 6;
export const EDGE = 7;
export const PHASE = 8;
export const REQUEST = 9;
export const SPEED = 10;
export const TRAIL = 11;
export const PART = 12;
export const KEPT = 13;
export const IMPLIED = 14;
export const PHASED = 15;

/** The parts of a timeline; none if it has ended or has no length. */
export const PARTS = ["none", "startup", "active", "recovery"] as const;

/** The phases of a move's timeline; a note holds an index into this list. The first three are parts, in their order. */
export const PHASES = ["startup", "active", "recovery", "over", "cut"] as const;

/** The reasons of a lapse; a note holds an index into this list. */
export const LAPSE_REASONS = [
  "too-short",
  "too-long",
  "too-slow",
  "broken",
  "cancelled",
  "hidden",
  "mode",
] as const;
export type LapseReason = (typeof LAPSE_REASONS)[number];

/** The reasons of a loss; a note holds an index into this list. */
export const LOSS_REASONS = [
  "replaced",
  "beaten",
  "prompt",
  "mode",
  "cooldown",
  "uses",
  "busy",
  "late",
  "gate",
  "ban",
] as const;
export type LossReason = (typeof LOSS_REASONS)[number];

/** The ways in which a move is performed. */
export const PERFORMED_BY = ["direct", "buffer", "coyote", "both"] as const;
export type PerformedBy = (typeof PERFORMED_BY)[number];

/** The events of a prompt; numbers from GRADED on are grades. */
export const SHOWN = 0;
export const OPENED = 1;
export const OK = 2;
export const FAILED = 3;
export const GRADED = 4;
export const FAILURES = ["too-late", "too-early", "wrong", "mode"] as const;

/**
 * The record of a run, as columns: note `i` occurred on `frame[i]` and concerns `subject[i]` (an index into
 * the list of its kind), with `payload[at[i]]…`. Notes are in the order of section 3 of the frame rules.
 */
export interface Trace {
  rateHz: number;
  /** The number of frames run. */
  frames: number;
  count: number;
  frame: Uint32Array;
  kind: Uint8Array;
  subject: Uint16Array;
  at: Uint32Array;
  payload: Float64Array;
  used: number;
  /**
   * While muted, notes are dropped: presses carried over a switch are stepped again without being noted
   * again.
   */
  isMuted: boolean;
  /**
   * For studies that share runs: what pending requests would have been lost for, had their buffer run out. Four numbers for
   * each stepped frame at whose end a due request waits, and for the last of the skipped ones: its move, the frame on which it was made, its age in ticks since it was
   * due, and the reason, an index into LOSS_REASONS. Undefined in any other run.
   */
  readonly waits: number[] | undefined;
}

/**
 * Creates an empty trace. `rateHz`: frames per second. `room`: the notes it can hold before its columns
 * double. `waits`: a list that a run fills, see Trace.
 */
export function createTrace(rateHz: number, room = 256, waits?: number[]): Trace {
  return {
    rateHz,
    frames: 0,
    count: 0,
    frame: new Uint32Array(room),
    kind: new Uint8Array(room),
    subject: new Uint16Array(room),
    at: new Uint32Array(room),
    payload: new Float64Array(room * 2),
    used: 0,
    isMuted: false,
    waits,
  };
}

/** Removes all notes and keeps the allocated columns. */
export function clearTrace(trace: Trace): void {
  trace.count = 0;
  trace.used = 0;
  trace.frames = 0;
}

/** Returns the index of the first note after a frame; `count` if there is none. Binary search. */
export function firstNoteAfter(trace: Trace, frame: number): number {
  return firstAbove(trace.frame, frame, 0, trace.count);
}

/** Removes every note from `frame` on, for stepping back. */
export function rewindTrace(trace: Trace, frame: number): void {
  trace.count = firstNoteAfter(trace, frame - 1);
  trace.used = trace.count === 0 ? 0 : trace.at[trace.count]!;
  trace.frames = Math.min(trace.frames, frame);
}

function growNotes(trace: Trace): void {
  const room = trace.frame.length * 2;
  const longer = {
    frame: new Uint32Array(room),
    kind: new Uint8Array(room),
    subject: new Uint16Array(room),
    at: new Uint32Array(room),
  };
  longer.frame.set(trace.frame);
  longer.kind.set(trace.kind);
  longer.subject.set(trace.subject);
  longer.at.set(trace.at);
  Object.assign(trace, longer);
}

/** Begins a note; add its payload with `put`. */
export function note(trace: Trace, frame: number, kind: number, subject: number): void {
  if (trace.isMuted) return;
  const i = trace.count;
  if (i + 1 >= trace.frame.length) growNotes(trace);
  trace.frame[i] = frame;
  trace.kind[i] = kind;
  trace.subject[i] = subject;
  trace.at[i] = trace.used;
  trace.at[i + 1] = trace.used;
  trace.count = i + 1;
}

/** Adds one number to the payload of the note begun last. */
export function put(trace: Trace, value: number): void {
  if (trace.isMuted) return;
  if (trace.used >= trace.payload.length) {
    const longer = new Float64Array(trace.payload.length * 2);
    longer.set(trace.payload);
    trace.payload = longer;
  }
  trace.payload[trace.used++] = value;
  trace.at[trace.count] = trace.used;
}
