import type { InputColumns } from "../../input/inputColumns";
import { edgeKey, isOfPress, type Program } from "../../program/program";
import { notes } from "../../trace/noteKinds";
import { edgeCountOf, edgeOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import { lostMovesOf, usersOf } from "../outcomes/fate";
import type { TakeOutcomes } from "../outcomes/readOutcomes";
import { listPresses, shiftPress, type ColumnPress } from "./shiftPress";

/** The maximum shift of a press either way, in frames. */
export const MAX_SHIFT_FRAMES = 30;
/** A press with at most this many frames of room on a side is tight. */
export const TIGHT_FRAMES = 1;

/**
 * The room of a press that a performed move used: how far it could shift with the move still performed with
 * it.
 */
export interface Room {
  /** Indices into the program's lists; frames of the take. */
  readonly control: number;
  readonly frame: number;
  readonly move: number;
  /** How the move was performed: an index into PERFORMED_BY. */
  readonly by: number;
  /** Frames of room on either side; `MAX_SHIFT_FRAMES` if the search ended there. */
  readonly early: number;
  readonly late: number;
  /**
   * Whether a side is bounded by the next press on the same control or an end of the take, and not by the
   * rules.
   */
  readonly isEarlyBounded: boolean;
  readonly isLateBounded: boolean;
  /** Whether it was counted as its opposite was let go: such a press is none of the take's, and has no shifts. */
  readonly isOfOpposite: boolean;
}

/**
 * The miss of a lost press: the smallest shift that saves it, early (below 0) or late, and the resulting
 * move.
 */
export interface Miss {
  readonly control: number;
  readonly frame: number;
  /** The move that lost it. */
  readonly move: number;
  /** Undefined if no shift within reach saves it. */
  readonly by: number | undefined;
  readonly saves: number | undefined;
  /** As of a room. */
  readonly isOfOpposite: boolean;
}

/** The rooms and misses of a take's presses. */
export interface Rooms {
  readonly rooms: readonly Room[];
  readonly misses: readonly Miss[];
}

/**
 * Runs columns that equal the take's before a frame, and returns their trace from that frame on or earlier,
 * up to a frame (exclusive). It may start from a kept state; the result equals a run from frame 0.
 */
export type RunFrom = (columns: InputColumns, from: number) => { readonly runTo: (frame: number) => Trace };

/** Frames run between two checks whether the press was used. */
const LOOK_EVERY = 60;
/** A press unused for this long counts as lost. */
const MAX_WAIT_SECONDS = 10;

/**
 * Returns the move performed with a press among its edges: the given one, or any if `move` is −1; −1 for
 * none.
 */
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

/**
 * Runs a take with one press moved until a move is performed with it, at most ten seconds after its release.
 * Returns the index of the move, or −1.
 */
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
  const last = Math.min(columns.frames, press.up + Math.max(0, by) + MAX_WAIT_SECONDS * program.rateHz);
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
): Omit<Room, "by"> {
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
  const toEarly = Math.min(MAX_SHIFT_FRAMES, -press.least);
  const toLate = Math.min(MAX_SHIFT_FRAMES, press.most);
  const early = widen(-1, toEarly);
  const late = widen(1, toLate);
  return {
    control,
    frame: down,
    move,
    early,
    late,
    isEarlyBounded: early === toEarly && toEarly < MAX_SHIFT_FRAMES,
    isLateBounded: late === toLate && toLate < MAX_SHIFT_FRAMES,
    isOfOpposite: false,
  };
}

function missOf(
  program: Program,
  columns: InputColumns,
  press: ColumnPress,
  runFrom: RunFrom,
): Omit<Miss, "move"> {
  const { control, down: frame, least, most } = press;
  for (let by = 1; by <= MAX_SHIFT_FRAMES; by++)
    for (const shift of [-by, by]) {
      if (shift < least || shift > most) continue;
      const saves = tryShift(program, columns, press, shift, -1, runFrom);
      if (saves >= 0) return { control, frame, by: shift, saves, isOfOpposite: false };
    }
  return { control, frame, by: undefined, saves: undefined, isOfOpposite: false };
}

/** The room and the miss of a press that cannot be shifted, as it is none of the take's own. */
const ROOMLESS = { early: 0, late: 0, isEarlyBounded: true, isLateBounded: true, isOfOpposite: true };
const SHIFTLESS = { by: undefined, saves: undefined, isOfOpposite: true };

/**
 * Yields the room of every press that a performed move used, and the smallest shift that saves each lost one.
 * A shift moves press and release together by whole frames, never onto or past a neighbour on the same
 * control, and changes nothing else. The room is the longest unbroken run of shifts around 0 for which the
 * same move is still performed with that press among its edges. `own` are the outcomes of the take's own run.
 * Early wins a tie. A press that counted as its opposite was let go is in neither column: it has no room and no shift.
 */
export function* studyRooms(
  program: Program,
  columns: InputColumns,
  own: TakeOutcomes,
  runFrom: RunFrom,
): Generator<{ readonly done: number; readonly of: number }, Rooms> {
  const presses = new Map(
    listPresses(columns).map(press => [edgeKey(press.down, press.control, program.sourceCount), press]),
  );
  const rooms: Room[] = [];
  const misses: Miss[] = [];
  for (const [done, fate] of own.presses.entries()) {
    const { control, frame } = fate;
    const press = presses.get(edgeKey(frame, control, program.sourceCount));
    const lost = lostMovesOf(fate);
    for (const move of usersOf(fate, "move")) {
      const by = fate.uses.find(({ kind, index }) => kind === "move" && index === move)!.by;
      const room = press
        ? roomOf(program, columns, press, move, runFrom)
        : { control, frame, move, ...ROOMLESS };
      rooms.push({ ...room, by });
    }
    if (lost.length > 0) {
      const miss = press ? missOf(program, columns, press, runFrom) : { control, frame, ...SHIFTLESS };
      for (const move of lost) misses.push({ ...miss, move });
    }
    yield { done, of: own.presses.length };
  }
  return { rooms, misses };
}
