import type { Program } from "../program/program";
import { TICKS } from "../time/clock";
import { clockOfTrace } from "../time/takeClock";
import { notes } from "../trace/noteKinds";
import { PARTS, PERFORMED_BY, type PerformedBy, type Trace } from "../trace/trace";
import type { MoveRequest } from "./outcomes/readOutcomes";

/** A frame on which a move of a slot was requested while a timeline ran in it. */
export interface Meanwhile {
  /** The age of the timeline, in frames of its move's own clock. */
  readonly at: number;
  readonly frame: number;
  /**
   * The best result of all requests of that frame: a press that one move used is not lost because others were
   * replaced.
   */
  readonly became: PerformedBy | "lost" | "waiting";
}

const RANKS: readonly Meanwhile["became"][] = ["lost", "waiting", "both", "coyote", "buffer", "direct"];

function becameOf({ end, by }: MoveRequest): Meanwhile["became"] {
  if (end === "pending") return "waiting";
  return end === "lost" ? "lost" : PERFORMED_BY[by]!;
}

/**
 * Returns the ranges in which a move's timeline ran: from its performance to the frame on which it ended or
 * was cut.
 */
function listTimelines(program: Program, trace: Trace, move: number): { from: number; to: number }[] {
  const { slot } = program.moves[move]!;
  const found: { from: number; to: number }[] = [];
  for (let i = 0; i < trace.count; i++) {
    const subject = trace.subject[i]!;
    const isPart = trace.kind[i] === notes.part.code;
    if (!isPart && (trace.kind[i] !== notes.performed.code || subject !== move)) continue;
    if (program.moves[subject]!.slot !== slot) continue;
    const last = found.at(-1);
    const isOver = isPart && (subject === move) === (PARTS[notes.part.part(trace, i)] === "none");
    if (last?.to === Infinity && (isOver || !isPart)) last.to = trace.frame[i]!;
    if (!isPart) found.push({ from: trace.frame[i]!, to: Infinity });
  }
  return found;
}

/**
 * Returns, in order, every frame on which a move of the same slot was requested while the timeline of `move`
 * ran, with the best result. Omits the frame of the performance itself. `requests` are those of the whole
 * trace (see readOutcomes). A move without a timeline has none.
 */
export function listMeanwhile(
  program: Program,
  trace: Trace,
  requests: readonly MoveRequest[],
  move: number,
): Meanwhile[] {
  const { slot, isReal, startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  if (startupTicks + activeTicks + recoveryTicks === 0) return [];
  const clock = clockOfTrace(trace);
  const ageAt = (frame: number, since: number) =>
    isReal ? frame - since : Math.floor((clock.ticksAt(frame) - clock.ticksAt(since)) / TICKS);
  const timelines = listTimelines(program, trace, move);
  const found: { at: number; frame: number; became: Meanwhile["became"] }[] = [];
  let t = 0;
  for (const request of requests) {
    const { made } = request;
    if (program.moves[request.move]!.slot !== slot) continue;
    while (t < timelines.length && timelines[t]!.to < made) t++;
    const running = timelines[t];
    if (!running || made <= running.from) continue;
    const last = found.at(-1);
    const became = becameOf(request);
    if (last?.frame !== made) found.push({ at: ageAt(made, running.from), frame: made, became });
    else if (RANKS.indexOf(became) > RANKS.indexOf(last.became)) last.became = became;
  }
  return found;
}
