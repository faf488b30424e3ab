import { BOUNDS } from "../../formats/bounds";
import { controlsOfKey, edgeKey, keyFrame, type Program } from "../../program/program";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import { isAnswered, promptOutcome } from "../../trace/notes/prompt";
import { LOSS_REASONS, PERFORMED_BY, type LossReason, type PerformedBy, type Trace } from "../../trace/trace";
import { listDelays } from "../feel/delays";
import type { Fate } from "../outcomes/fate";
import { createOutcomeReader } from "../outcomes/readOutcomes";
import { count } from "../outcomes/ruleCounts";
import type { Counted } from "./swept";

/** One event of a take: a performed move or an ended prompt. Frames of the trace. */
export interface OutcomeEvent {
  readonly kind: "performed" | "prompt";
  readonly index: number;
  readonly frame: number;
  /** The keys (see edgeKey) of the presses of the move's request; none for a prompt. */
  readonly edges: readonly number[];
}

/** A request that was not performed: lost, or still pending at the end of the run (`reason` −1). */
export interface Unperformed {
  readonly move: number;
  readonly made: number;
  /** An index into LOSS_REASONS. */
  readonly reason: number;
  /** If it is pending: the keys of those of its presses that nothing used. */
  readonly presses: readonly number[];
}

/** The results of one run, as sweeps count them. */
export interface Outcome {
  /** By identity, as a number: a move and the frame of its request; a prompt, its turn and its outcome. */
  readonly events: ReadonlyMap<number, OutcomeEvent>;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** Requests by reason. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** The counted requests that were not performed. */
  readonly unperformed: readonly Unperformed[];
  /** The keys of the lost presses (see Fate). */
  readonly lostPresses: ReadonlySet<number>;
  /** For each performed request: frames from its decisive press to the performance. */
  readonly delays: readonly number[];
  /** The counted showings of prompts that were answered, and those that ended without an answer. */
  readonly answered: number;
  readonly unanswered: number;
}

/** The outcomes that a prompt may have: the fixed ones and its grades. */
const OUTCOMES = promptOutcome.graded + BOUNDS.clauses;

/** Adds the ends of the showings of prompts to events, and returns how many of those counted were answered and not. */
function addPrompts(
  { prompts }: Program,
  trace: Trace,
  events: Map<number, OutcomeEvent>,
  counted: Counted["prompts"],
): Pick<Outcome, "answered" | "unanswered"> {
  const sums = { answered: 0, unanswered: 0 };
  if (prompts.length === 0) return sums;
  const turns = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.prompt.code) continue;
    const index = trace.subject[i]!;
    const outcome = notes.prompt.outcome(trace, i);
    if (!isAnswered(outcome) && outcome !== promptOutcome.failed) continue;
    const turn = turns.get(index) ?? 0;
    turns.set(index, turn + 1);
    if (!counted || counted.has(index)) sums[isAnswered(outcome) ? "answered" : "unanswered"]++;
    // Below zero, apart from moves.
    const identity = -1 - (turn * prompts.length + index) * OUTCOMES - outcome;
    events.set(identity, { kind: "prompt", index, frame: trace.frame[i]!, edges: [] });
  }
  return sums;
}

/** Returns the keys of the presses that edges began with: a direction counts as the presses of its controls. */
function listPressKeys(program: Program, edges: readonly number[]): number[] {
  return edges.flatMap(key =>
    controlsOfKey(program, key).map(control => edgeKey(keyFrame(program, key), control, program.sourceCount)),
  );
}

function countLosses(unperformed: readonly Unperformed[]): Outcome["lost"] {
  const lost: Partial<Record<LossReason, number>> = {};
  for (const { reason } of unperformed) if (reason >= 0) count(lost, LOSS_REASONS[reason]!);
  return lost;
}

/**
 * Returns the results of a run. `counted` restricts requests, losses, delays, lost presses and showings to those of some rules.
 * `gaps`: see listDelays.
 */
export function readOutcome(
  program: Program,
  trace: Trace,
  { moves, prompts }: Counted,
  gaps: readonly number[] = [],
): Outcome {
  const reader = createOutcomeReader(program, trace);
  reader.readTo(trace.count);
  const { presses, requests } = reader;
  const isCounted = (move: number) => moves === undefined || moves.has(move);
  const keyOf = ({ frame, control }: Fate) => edgeKey(frame, control, program.sourceCount);
  const events = new Map<number, OutcomeEvent>();
  const performed: Record<PerformedBy, number> = { direct: 0, buffer: 0, coyote: 0, both: 0 };
  const unperformed: Unperformed[] = [];
  const isUnused = (key: number) => presses.some(press => press.outcome !== "used" && keyOf(press) === key);
  for (const { move, made, end, frame, note, by, reason } of requests) {
    if (end === "performed") {
      const edges = edgesOf(trace, note);
      events.set(made * program.moves.length + move, { kind: "performed", index: move, frame, edges });
      if (isCounted(move)) performed[PERFORMED_BY[by]!]++;
    } else if (isCounted(move)) {
      const own = end === "pending" ? listPressKeys(program, edgesOf(trace, note)) : [];
      unperformed.push({ move, made, reason, presses: own.filter(isUnused) });
    }
  }
  const showings = addPrompts(program, trace, events, prompts);
  const lostPresses = new Set<number>();
  for (const press of presses)
    if (press.outcome === "lost" && press.losses.some(({ move }) => isCounted(move)))
      lostPresses.add(keyOf(press));
  const delays = listDelays(program, trace, requests, gaps).flatMap(({ move, total }) =>
    isCounted(move) ? [total] : [],
  );
  return { events, performed, lost: countLosses(unperformed), unperformed, lostPresses, delays, ...showings };
}

/**
 * Returns the results of a run at a smaller buffer, from those of a run that decided the same at a larger one: the same, but
 * requests that go on waiting there run out earlier, for the reason of that frame. `waits`: see Trace; of the run at the larger
 * buffer. `program`: that of the smaller one.
 */
export function shortenWaits(upper: Outcome, waits: readonly number[], program: Program): Outcome {
  const reasons = new Map<number, number>();
  const keyOf = (move: number, made: number) => made * program.moves.length + move;
  for (let k = 0; k < waits.length; k += 4) {
    const move = waits[k]!;
    if (waits[k + 2]! < program.moves[move]!.bufferTicks) continue;
    const key = keyOf(move, waits[k + 1]!);
    if (!reasons.has(key)) reasons.set(key, waits[k + 3]!);
  }
  if (reasons.size === 0) return upper;
  const lostPresses = new Set(upper.lostPresses);
  const unperformed = upper.unperformed.map((request): Unperformed => {
    const reason = reasons.get(keyOf(request.move, request.made));
    if (reason === undefined) return request;
    for (const key of request.presses) lostPresses.add(key);
    return { ...request, reason, presses: [] };
  });
  return { ...upper, unperformed, lost: countLosses(unperformed), lostPresses };
}
