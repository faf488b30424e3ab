import { edgeKey, type Program } from "../../program/program";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import { isAnswered, promptOutcome } from "../../trace/notes/prompt";
import { LOSS_REASONS, PERFORMED_BY, type LossReason, type PerformedBy, type Trace } from "../../trace/trace";
import { listDelays } from "../feel/delays";
import { readOutcomes } from "../outcomes/readOutcomes";
import { count } from "../outcomes/ruleCounts";

/** One event of a take: a performed move or an ended prompt. Frames of the trace. */
export interface OutcomeEvent {
  readonly kind: "performed" | "prompt";
  readonly index: number;
  readonly frame: number;
  /** The keys (see edgeKey) of the presses of the move's request; none for a prompt. */
  readonly edges: readonly number[];
}

/** The results of one run, as sweeps count them. */
export interface Outcome {
  /** By identity: a move and the frame of its request; a prompt, its turn and its outcome. */
  readonly events: ReadonlyMap<string, OutcomeEvent>;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** Requests by reason. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** The keys of the lost presses (see Fate). */
  readonly lostPresses: ReadonlySet<number>;
  /** For each performed request: frames from its decisive press to the performance. */
  readonly delays: readonly number[];
}

function addPrompts(trace: Trace, events: Map<string, OutcomeEvent>): void {
  const turns = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.prompt.code) continue;
    const index = trace.subject[i]!;
    const outcome = notes.prompt.outcome(trace, i);
    if (!isAnswered(outcome) && outcome !== promptOutcome.failed) continue;
    const turn = turns.get(index) ?? 0;
    turns.set(index, turn + 1);
    events.set(`p${index} ${turn} ${outcome}`, { kind: "prompt", index, frame: trace.frame[i]!, edges: [] });
  }
}

/**
 * Returns the results of a run. `moves` restricts requests, losses, delays and lost presses to these moves,
 * by index; absent means all. `gaps`: see listDelays.
 */
export function readOutcome(
  program: Program,
  trace: Trace,
  moves?: ReadonlySet<number>,
  gaps: readonly number[] = [],
): Outcome {
  const { presses, requests } = readOutcomes(program, trace);
  const isCounted = (move: number) => moves === undefined || moves.has(move);
  const events = new Map<string, OutcomeEvent>();
  const performed: Record<PerformedBy, number> = { direct: 0, buffer: 0, coyote: 0, both: 0 };
  const lost: Partial<Record<LossReason, number>> = {};
  for (const { move, made, end, frame, note, by, reason } of requests) {
    if (end === "performed") {
      const edges = edgesOf(trace, note);
      events.set(`m${move} ${made}`, { kind: "performed", index: move, frame, edges });
      if (isCounted(move)) performed[PERFORMED_BY[by]!]++;
    } else if (end === "lost" && isCounted(move)) count(lost, LOSS_REASONS[reason]!);
  }
  addPrompts(trace, events);
  const lostPresses = new Set<number>();
  for (const { outcome, losses, frame, control } of presses)
    if (outcome === "lost" && losses.some(({ move }) => isCounted(move)))
      lostPresses.add(edgeKey(frame, control, program.sourceCount));
  const delays = listDelays(program, trace, requests, gaps).flatMap(({ move, total }) =>
    isCounted(move) ? [total] : [],
  );
  return { events, performed, lost, lostPresses, delays };
}
