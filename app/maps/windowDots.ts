import {
  clockOfTrace,
  dueFrame,
  edgesOf,
  firstAbove,
  framesBetween,
  isOfPress,
  isPressKey,
  keyFrame,
  keySource,
  LOSS_REASONS,
  PERFORMED_BY,
  turnsOfGate,
  type MoveRequest,
  type PerformedBy,
  type Program,
  type TakeOutcomes,
  type Trace,
  type WantedPress,
} from "#core";

/** A take as a map reads it: its trace, and the outcomes of its presses and requests. */
export interface TakeRead {
  readonly program: Program;
  readonly trace: Trace;
  readonly outcomes: TakeOutcomes;
}

/**
 * The position of a request relative to a gate, and its end. Frames are those of the clock that judged it.
 */
export interface WindowDot {
  readonly fate: PerformedBy | "lost";
  /** Whether the gate was closed and about to open (early), open, or closed after having been open (late). */
  readonly side: "early" | "open" | "late";
  /** Frames before the opening, since it, or since it closed; Infinity if it never did. */
  readonly frames: number;
  /** If performed: frames from the end of its defer, where its buffer begins, to the performance. */
  readonly waited: number;
  readonly frame: number;
  /** The note of its end. */
  readonly note: number;
  /** If lost: the last press of the request; undefined for a direction without one. */
  readonly press?: { readonly control: number; readonly frame: number } | undefined;
}

/** The ranges in which a gate was open, in order; the last may be open-ended. */
interface Openings {
  readonly from: readonly number[];
  readonly to: readonly number[];
}

function openings(trace: Trace, gate: number): Openings {
  const { opened, closed } = turnsOfGate(trace, gate);
  return { from: opened, to: opened.map((_frame, k) => closed[k] ?? Infinity) };
}

/**
 * Measures frames on the clocks of a move: `memory` for the age of a request, `own` for the coyote of its
 * needs.
 */
interface MoveClocks {
  readonly memory: (from: number, to: number) => number;
  readonly own: (from: number, to: number) => number;
  /** Returns the frame from which a request is buffered. */
  readonly dueOf: (request: MoveRequest) => number;
}

function clocksOf({ program, trace }: TakeRead, move: number): MoveClocks {
  const clock = clockOfTrace(trace);
  const { isReal, isMemoryReal } = program.moves[move]!;
  const measure = (real: boolean) => (from: number, to: number) =>
    Number.isFinite(from) && Number.isFinite(to) ? framesBetween(clock, real, from, to) : Infinity;
  return {
    memory: measure(isMemoryReal),
    own: measure(isReal),
    dueOf: request => dueFrame(clock, program.moves[move]!, request),
  };
}

const sinceClosed = ({ to }: Openings, { own }: MoveClocks, frame: number): number => {
  const closed = firstAbove(to, frame);
  return closed > 0 ? own(to[closed - 1]! - 1, frame) : Infinity;
};

/**
 * Returns the position of a frame relative to a gate's openings: closer to the next one, in one, or closer to
 * the last.
 */
function placeOf(opened: Openings, clocks: MoveClocks, frame: number): Pick<WindowDot, "side" | "frames"> {
  const { from, to } = opened;
  const after = firstAbove(from, frame);
  if (after > 0 && frame < to[after - 1]!)
    return { side: "open", frames: clocks.own(from[after - 1]!, frame) };
  const since = sinceClosed(opened, clocks, frame);
  const until = after < from.length ? clocks.memory(frame, from[after]!) : Infinity;
  return until <= since ? { side: "early", frames: until } : { side: "late", frames: since };
}

const isLostTo = ({ reason, because }: MoveRequest, why: "gate" | "ban", gate: number) =>
  LOSS_REASONS[reason] === why && because === gate;

/** Returns the last press of a request: a control's own edge, or one that began its direction. */
function pressOf({ program, trace, outcomes }: TakeRead, { note }: MoveRequest): WindowDot["press"] {
  const edges = edgesOf(trace, note).sort((a, b) => keyFrame(program, b) - keyFrame(program, a));
  for (const key of edges) {
    const frame = keyFrame(program, key);
    if (isPressKey(program, key)) return { control: keySource(program, key), frame };
    const made = outcomes.presses.find(press => isOfPress(program, key, press.control, press.frame));
    if (made) return { control: made.control, frame };
  }
  return undefined;
}

/**
 * Returns every request of a move that one of its needed gates has judged, with its position relative to that
 * gate. Omits pending requests and those lost for another reason (a newer one, a ban, a cooldown). A request
 * lost while the gate was open but spent has the side `open`.
 */
export function listWindowDots(read: TakeRead, move: number, gate: number): WindowDot[] {
  const opened = openings(read.trace, gate);
  const clocks = clocksOf(read, move);
  return read.outcomes.requests.flatMap((request): WindowDot[] => {
    if (request.move !== move) return [];
    const { made, frame, endNote: note } = request;
    const due = clocks.dueOf(request);
    const place = placeOf(opened, clocks, due);
    if (request.end === "lost" && isLostTo(request, "gate", gate))
      return [{ fate: "lost", ...place, waited: 0, frame: made, note, press: pressOf(read, request) }];
    if (request.end !== "performed") return [];
    const fate = PERFORMED_BY[request.by]!;
    const isLate = fate === "coyote" && place.side !== "late";
    const at = isLate ? { side: "late" as const, frames: sinceClosed(opened, clocks, due) } : place;
    return [{ fate, ...at, waited: clocks.memory(due, frame), frame: made, note }];
  });
}

/**
 * Returns every request of a move that a banning gate has judged: made while it was open ("early", frames
 * until it closed), or after ("open", frames since). Omits requests lost for another reason.
 */
export function listBanDots(read: TakeRead, move: number, gate: number): WindowDot[] {
  const { from, to } = openings(read.trace, gate);
  const clocks = clocksOf(read, move);
  return read.outcomes.requests.flatMap((request): WindowDot[] => {
    if (request.move !== move) return [];
    const { made, frame, endNote: note } = request;
    const due = clocks.dueOf(request);
    const k = firstAbove(from, due) - 1;
    const isBanned = k >= 0 && due < to[k]!;
    const frames = isBanned ? clocks.memory(due, to[k]!) : k >= 0 ? clocks.own(to[k]!, due) : Infinity;
    const side = isBanned ? ("early" as const) : ("open" as const);
    const dot = { side, frames, frame: made, note };
    if (request.end === "performed")
      return [{ ...dot, fate: PERFORMED_BY[request.by]!, waited: clocks.memory(due, frame) }];
    const isLost = request.end === "lost" && isLostTo(request, "ban", gate);
    return isLost ? [{ ...dot, fate: "lost", waited: 0, press: pressOf(read, request) }] : [];
  });
}

/** The counts of a ban's dots, with the nearest miss. They add up to the number of dots. */
export interface BanCounts {
  /** Performed after they were made while the gate was open, or made while it was not. */
  readonly buffered: number;
  readonly free: number;
  /** Lost before the gate closed, lost where it never closed, or made while it was closed and lost when it opened. */
  readonly early: number;
  readonly hopeless: number;
  readonly caught: number;
  /** The frames by which the nearest early one missed; Infinity if none was lost early. */
  readonly earlyBy: number;
}

/** Counts the dots of a ban for a buffer, in frames. */
export function countBan(dots: readonly WindowDot[], bufferFrames: number): BanCounts {
  const { early, spent, hopeless, earlyBy } = countWindow(dots, bufferFrames, 0);
  const kept = dots.filter(({ fate }) => fate !== "lost");
  const buffered = kept.filter(({ side }) => side === "early").length;
  return { buffered, free: kept.length - buffered, early, hopeless, caught: spent, earlyBy };
}

/** All requests of a move in some takes, and those of them that have no dot on a map of one gate. */
export interface RequestCounts {
  readonly asked: number;
  /** Lost for a reason that is not this gate. */
  readonly lostElsewhere: number;
  /** Neither performed nor lost at the end of their take. */
  readonly waiting: number;
}

/** Counts the requests of a move, of which a map draws some as dots. */
export function countRequests(reads: readonly TakeRead[], move: number, dots: number): RequestCounts {
  const counts = reads.map(({ outcomes }) => outcomes.counts.moves[move]!);
  const asked = counts.reduce((sum, own) => sum + own.asked, 0);
  const waiting = counts.reduce((sum, own) => sum + own.pending, 0);
  return { asked, lostElsewhere: asked - waiting - dots, waiting };
}

/**
 * Returns the presses of lost dots on one side of a gate, each with the index of its take, for an offer that saves them. Omits
 * those beside which the gate never turns: no length reaches there, and captions count them apart.
 */
export function lostPresses(
  dots: readonly (WindowDot & { readonly take: number })[],
  side: WindowDot["side"],
): WantedPress[] {
  return dots.flatMap(({ fate, side: own, frames, press, take }) =>
    fate === "lost" && own === side && frames < Infinity && press ? [{ ...press, take }] : [],
  );
}

/** The counts of a window's dots, with the nearest miss on either side. */
export interface WindowCounts {
  readonly direct: number;
  readonly buffer: number;
  readonly coyote: number;
  readonly both: number;
  readonly early: number;
  readonly late: number;
  /** Lost while the gate was open but spent. */
  readonly spent: number;
  /** Lost in a take in which the gate never opened: no window could have saved them. */
  readonly hopeless: number;
  /** The frames by which the nearest lost one missed; Infinity if none was lost on that side. */
  readonly earlyBy: number;
  readonly lateBy: number;
}

/**
 * Counts dots for a buffer and a coyote, in frames. All counts except the last two add up to the number of
 * dots.
 */
export function countWindow(
  dots: readonly WindowDot[],
  bufferFrames: number,
  coyoteFrames: number,
): WindowCounts {
  const count = (fate: WindowDot["fate"]) => dots.filter(dot => dot.fate === fate).length;
  const lost = dots.filter(dot => dot.fate === "lost");
  const within = (side: WindowDot["side"]) =>
    lost.filter(dot => dot.side === side && Number.isFinite(dot.frames));
  const missBy = (side: WindowDot["side"], limit: number) =>
    within(side).reduce(
      (least, dot) => Math.min(least, Math.max(1, Math.ceil(dot.frames - limit))),
      Infinity,
    );
  const [early, late, spent] = [within("early").length, within("late").length, within("open").length];
  return {
    direct: count("direct"),
    buffer: count("buffer"),
    coyote: count("coyote"),
    both: count("both"),
    early,
    late,
    spent,
    hopeless: lost.length - early - late - spent,
    earlyBy: missBy("early", bufferFrames),
    lateBy: missBy("late", coyoteFrames),
  };
}
