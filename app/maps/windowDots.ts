import { notes, type Program, type Trace } from "#core";

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
}

const FATES = ["direct", "buffer", "coyote", "both"] as const;

/** The stretches in which a gate was open, in order; the last may be without end. */
function openings(trace: Trace, gate: number): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.GATE || trace.subject[i] !== gate) continue;
    if (trace.payload[trace.at[i]!] === 1) found.push({ from: trace.frame[i]!, to: Infinity });
    else if (found.length > 0) found.at(-1)!.to = trace.frame[i]!;
  }
  return found;
}

/** Where a frame lies with regard to the openings of a gate: nearer to the next one, in one, or nearer to the last. */
function placeOf(
  opened: readonly { from: number; to: number }[],
  frame: number,
): Pick<WindowDot, "side" | "frames"> {
  const last = opened.findLast(stretch => stretch.from <= frame);
  if (last && frame < last.to) return { side: "open", frames: frame - last.from };
  const next = opened.find(stretch => stretch.from > frame);
  const since = last ? frame - last.to + 1 : Infinity;
  const until = next ? next.from - frame : Infinity;
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
      });
    } else if (kind === notes.LOST && isLostTo(trace, i, gate)) {
      const place = placeOf(opened, made);
      if (place.side !== "open") dots.push({ fate: "lost", ...place, waited: 0, frame: made });
    }
  }
  return dots;
}

function sinceClosed(opened: readonly { from: number; to: number }[], frame: number): number {
  const last = opened.findLast(stretch => stretch.to <= frame);
  return last ? frame - last.to + 1 : Infinity;
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
    Math.min(Infinity, ...lost(side).map(dot => dot.frames - limit));
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
