import { firstAbove, notes, type Program, type Trace } from "#core";

/** How a request stood to the gate it needs, and what became of it. */
export interface WindowDot {
  readonly fate: "direct" | "buffer" | "coyote" | "both" | "lost";
  /** Was the gate closed and about to open (early), open, or closed after having been open (late)? */
  readonly side: "early" | "open" | "late";
  /** Frames before the opening, since it, or since it closed; Infinity where it never did. */
  readonly frames: number;
  /** For one that was performed: how many frames after it was asked for. */
  readonly waited: number;
  readonly frame: number;
  /** The note that tells its end. */
  readonly note: number;
}

const FATES = ["direct", "buffer", "coyote", "both"] as const;

/** The stretches in which a gate was open, in order; the last may be without end. */
interface Openings {
  readonly from: number[];
  readonly to: number[];
}

function openings(trace: Trace, gate: number): Openings {
  const from: number[] = [];
  const to: number[] = [];
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.GATE || trace.subject[i] !== gate) continue;
    if (trace.payload[trace.at[i]!] === 1) {
      from.push(trace.frame[i]!);
      to.push(Infinity);
    } else if (to.length > 0) to[to.length - 1] = trace.frame[i]!;
  }
  return { from, to };
}

/** Where a frame lies with regard to the openings of a gate: nearer to the next one, in one, or nearer to the last. */
function placeOf({ from, to }: Openings, frame: number): Pick<WindowDot, "side" | "frames"> {
  const after = firstAbove(from, frame);
  const isPast = after > 0;
  if (isPast && frame < to[after - 1]!) return { side: "open", frames: frame - from[after - 1]! };
  const since = isPast ? frame - to[after - 1]! + 1 : Infinity;
  const until = after < from.length ? from[after]! - frame : Infinity;
  return until <= since ? { side: "early", frames: until } : { side: "late", frames: since };
}

/**
 * Every request of a move in a trace, by how it stood to one of its gates. Requests lost to something else than that
 * gate (a newer one, a ban, a cooldown) are left out: the window did not judge them. Frames.
 */
export function listWindowDots(program: Program, trace: Trace, move: number, gate: number): WindowDot[] {
  const opened = openings(trace, gate);
  const dots: WindowDot[] = [];
  for (let i = 0; i < trace.count; i++) {
    if (trace.subject[i] !== move) continue;
    const kind = trace.kind[i];
    const made = trace.payload[trace.at[i]!]!;
    if (kind === notes.PERFORMED) {
      const by = trace.payload[trace.at[i]! + 1]!;
      const place = placeOf(opened, made);
      const fate = FATES[by] ?? "direct";
      const side = fate === "coyote" ? "late" : place.side;
      dots.push({
        fate,
        side,
        frames: side === place.side ? place.frames : sinceClosed(opened, made),
        waited: trace.frame[i]! - made,
        frame: made,
        note: i,
      });
    } else if (kind === notes.LOST && isLostTo(trace, i, gate)) {
      const place = placeOf(opened, made);
      if (place.side !== "open") dots.push({ fate: "lost", ...place, waited: 0, frame: made, note: i });
    }
  }
  return dots;
}

/**
 * Every request of a move in a trace, by how it stood to one of the gates that keep it away: asked while that was open
 * ("early", frames until it closed), or after ("open", frames since). Requests lost to something else are left out.
 */
export function listBanDots(program: Program, trace: Trace, move: number, gate: number): WindowDot[] {
  const { from, to } = openings(trace, gate);
  const dots: WindowDot[] = [];
  for (let i = 0; i < trace.count; i++) {
    const kind = trace.kind[i];
    if (trace.subject[i] !== move || (kind !== notes.PERFORMED && kind !== notes.LOST)) continue;
    const at = trace.at[i]!;
    const made = trace.payload[at]!;
    const k = firstAbove(from, made) - 1;
    const isBanned = k >= 0 && made < to[k]!;
    const frames = isBanned ? to[k]! - made : k >= 0 ? made - to[k]! : Infinity;
    const side = isBanned ? "early" : "open";
    if (kind === notes.PERFORMED) {
      const fate = FATES[trace.payload[at + 1]!] ?? "direct";
      dots.push({ fate, side, frames, waited: trace.frame[i]! - made, frame: made, note: i });
    } else if (isBanned && trace.payload[at + 1] === notes.LOST_TO_BAN && trace.payload[at + 2] === gate)
      dots.push({ fate: "lost", side, frames, waited: 0, frame: made, note: i });
  }
  return dots;
}

function sinceClosed({ to }: Openings, frame: number): number {
  const closed = firstAbove(to, frame);
  return closed > 0 ? frame - to[closed - 1]! + 1 : Infinity;
}

function isLostTo(trace: Trace, i: number, gate: number): boolean {
  const at = trace.at[i]!;
  return trace.payload[at + 1] === notes.LOST_TO_GATE && trace.payload[at + 2] === gate;
}

/** What the window did, counted, with the nearest miss on either side. */
export interface WindowCounts {
  readonly direct: number;
  readonly buffer: number;
  readonly coyote: number;
  readonly early: number;
  readonly late: number;
  /** Lost in a take in which the gate never opened: no window could have saved them. */
  readonly hopeless: number;
  /** By how many frames the nearest lost one missed; Infinity when none was lost on that side. */
  readonly earlyBy: number;
  readonly lateBy: number;
}

/** Counts dots for a buffer and a coyote, in frames. */
export function countWindow(
  dots: readonly WindowDot[],
  bufferFrames: number,
  coyoteFrames: number,
): WindowCounts {
  const count = (fate: WindowDot["fate"]) => dots.filter(dot => dot.fate === fate).length;
  const isLost = (dot: WindowDot) => dot.fate === "lost" && Number.isFinite(dot.frames);
  const lost = (side: WindowDot["side"]) => dots.filter(dot => isLost(dot) && dot.side === side);
  const missBy = (side: WindowDot["side"], limit: number) =>
    lost(side).reduce((least, dot) => Math.min(least, dot.frames - limit), Infinity);
  return {
    direct: count("direct"),
    buffer: count("buffer"),
    coyote: count("coyote") + count("both"),
    early: lost("early").length,
    late: lost("late").length,
    hopeless: count("lost") - dots.filter(isLost).length,
    earlyBy: missBy("early", bufferFrames),
    lateBy: missBy("late", coyoteFrames),
  };
}
