import type { InputColumns } from "../../input/inputColumns";
import { edgeKey, isOfPress, type Program } from "../../run/program";
import { notes } from "../../trace/noteKinds";
import { edgeCountOf, edgeOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import { lostMovesOf, usersOf } from "../outcomes/fate";
import type { TakeOutcomes } from "../outcomes/readOutcomes";
import { listPresses, shiftPress, type ColumnPress } from "./shiftPress";

/** So many frames either way a press is moved, at most. */
export const MOST_SHIFT = 30;
/** A press with so many frames of room on a side, or fewer, is tight. */
export const TIGHT_FRAMES = 1;

/** How far a press that a performed move used could have come earlier or later, and the move still be performed with it. */
export interface Room {
  /** Places in the program's lists; frames in the take. */
  readonly control: number;
  readonly frame: number;
  readonly move: number;
  /** Frames of room on either side; `MOST_SHIFT` where the search ended there. */
  readonly early: number;
  readonly late: number;
  /** Is a side ended by the next press on the same control, or by an end of the take, and not by the rules? */
  readonly isEarlyBounded: boolean;
  readonly isLateBounded: boolean;
}

/** By how much a lost press missed: the smallest shift that saves it, early (below 0) or late, and the move it then makes. */
export interface Miss {
  readonly control: number;
  readonly frame: number;
  /** The move it was lost for. */
  readonly move: number;
  /** Undefined where no shift within reach saves it. */
  readonly by: number | undefined;
  readonly saves: number | undefined;
}

/** What a take's presses have for room. */
export interface Rooms {
  readonly rooms: readonly Room[];
  readonly misses: readonly Miss[];
}

/**
 * Runs columns that are those of the take before a frame: gives the trace of it from that frame on at least, up to a frame
 * (not included). May begin from a state that was kept; the same as a run from frame 0 in all that it tells.
 */
export type RunFrom = (columns: InputColumns, from: number) => { readonly runTo: (frame: number) => Trace };

/** So many frames are run between two looks whether the press has come out. */
const LOOK_EVERY = 60;
/** A press that has not come out after so long is taken for lost. */
const MOST_WAIT_SECONDS = 10;

/** The move that is performed with a press among the edges of its request: a given one, or any (−1 asks for any); −1 for none. */
function findUse(program: Program, trace: Trace, control: number, frame: number, move: number): number {
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.performed.code || (move >= 0 && trace.subject[i] !== move)) continue;
    const subject = trace.subject[i]!;
    const made = notes.performed.made(trace, i);
    for (let r = i - 1; r >= 0 && trace.frame[r]! >= made; r--) {
      const isRequest = trace.kind[r] === notes.request.code && trace.subject[r] === subject;
      if (!isRequest || trace.frame[r] !== made) continue;
      for (let k = 0; k < edgeCountOf(trace, r); k++)
        if (isOfPress(program, edgeOf(trace, r, k), control, frame)) return subject;
    }
  }
  return -1;
}

/** Runs a take with one press moved until a move is performed with it, ten seconds after its release at most; the move's place, or −1. */
function tryShift(
  program: Program,
  columns: InputColumns,
  press: ColumnPress,
  by: number,
  move: number,
  runFrom: RunFrom,
): number {
  const shifted = shiftPress(columns, press, by);
  const course = runFrom(shifted, Math.min(press.down, press.down + by));
  const last = Math.min(columns.frames, press.up + Math.max(0, by) + MOST_WAIT_SECONDS * program.rateHz);
  for (let upTo = press.down + by + 2; ; upTo += LOOK_EVERY) {
    const end = Math.min(upTo, last);
    const found = findUse(program, course.runTo(end), press.control, press.down + by, move);
    if (found >= 0 || end === last) return found;
  }
}

function roomOf(
  program: Program,
  columns: InputColumns,
  press: ColumnPress,
  move: number,
  runFrom: RunFrom,
): Room {
  const { control, down } = press;
  const widen = (direction: 1 | -1, limit: number): number => {
    let reached = 0;
    while (
      reached < limit &&
      tryShift(program, columns, press, direction * (reached + 1), move, runFrom) === move
    )
      reached++;
    return reached;
  };
  const toEarly = Math.min(MOST_SHIFT, -press.least);
  const toLate = Math.min(MOST_SHIFT, press.most);
  const early = widen(-1, toEarly);
  const late = widen(1, toLate);
  return {
    control,
    frame: down,
    move,
    early,
    late,
    isEarlyBounded: early === toEarly && toEarly < MOST_SHIFT,
    isLateBounded: late === toLate && toLate < MOST_SHIFT,
  };
}

function missOf(
  program: Program,
  columns: InputColumns,
  press: ColumnPress,
  runFrom: RunFrom,
): Omit<Miss, "move"> {
  const { control, down: frame, least, most } = press;
  for (let by = 1; by <= MOST_SHIFT; by++)
    for (const shift of [-by, by]) {
      if (shift < least || shift > most) continue;
      const saves = tryShift(program, columns, press, shift, -1, runFrom);
      if (saves >= 0) return { control, frame, by: shift, saves };
    }
  return { control, frame, by: undefined, saves: undefined };
}

/**
 * The room of every press that a performed move used, and the smallest shift that would have saved each lost one, press by
 * press as it is asked for. A shift moves press and release together by whole frames, all else as it was, never onto or
 * past a neighbour on the same control; the room is the widest unbroken stretch of shifts around 0 for which the same move
 * is still performed with that press among its edges. `own`: the outcomes of the take's own run. A tie of early and late
 * goes to early.
 */
export function* studyRooms(
  program: Program,
  columns: InputColumns,
  own: TakeOutcomes,
  runFrom: RunFrom,
): Generator<{ readonly done: number; readonly of: number }, Rooms> {
  const fates = new Map(
    own.presses.map(fate => [edgeKey(fate.frame, fate.control, program.sourceCount), fate]),
  );
  const rooms: Room[] = [];
  const misses: Miss[] = [];
  const presses = listPresses(columns);
  for (const [done, press] of presses.entries()) {
    const fate = fates.get(edgeKey(press.down, press.control, program.sourceCount));
    if (!fate) continue;
    const lost = lostMovesOf(fate);
    for (const move of usersOf(fate, "move")) rooms.push(roomOf(program, columns, press, move, runFrom));
    if (lost.length > 0) {
      const miss = missOf(program, columns, press, runFrom);
      for (const move of lost) misses.push({ ...miss, move });
    }
    yield { done, of: presses.length };
  }
  return { rooms, misses };
}
