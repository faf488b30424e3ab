import type { Program } from "../../run/program";
import {
  FAILED,
  GRADED,
  LOSS_REASONS,
  LOST,
  OK,
  PERFORMED,
  PERFORMED_BY,
  PROMPT,
  REQUEST,
  type LossReason,
  type PerformedBy,
  type Trace,
} from "../../trace/trace";

/** One thing that came of a take: a move performed or a prompt ended. Frames are those of the trace. */
export interface OutcomeEvent {
  readonly kind: "performed" | "prompt";
  readonly index: number;
  readonly frame: number;
  /** Presses (source keys of the program) the move's request was made of; none for a prompt. */
  readonly edges: readonly number[];
}

/** What one run came to, as sweeps count it. */
export interface Outcome {
  /** By what it is of: a move and the frame it was asked for on, a prompt, its outcome and its turn. */
  readonly events: ReadonlyMap<string, OutcomeEvent>;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** By reason; what gave way to another move that took the press is no loss. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** Presses that some request had and no performed move, as source keys. */
  readonly lostPresses: ReadonlySet<number>;
  /** For each performed move: frames from its last press edge to the performance. */
  readonly delays: readonly number[];
}

const BEATEN = LOSS_REASONS.indexOf("beaten");

/** Reads what a run came to, in one pass over its notes. `moves`: only these are counted, by place; all where left out. */
export function readOutcome(program: Program, trace: Trace, moves?: ReadonlySet<number>): Outcome {
  const events = new Map<string, OutcomeEvent>();
  const performed: Record<PerformedBy, number> = { direct: 0, buffer: 0, coyote: 0, both: 0 };
  const lost: Partial<Record<LossReason, number>> = {};
  const lostKeys = new Set<number>();
  const usedKeys = new Set<number>();
  const delays: number[] = [];
  const requests = new Map<number, number>();
  const turns = new Map<number, number>();
  const edgesOf = (made: number, move: number): number[] => {
    const note = requests.get(made * program.moves.length + move);
    if (note === undefined) return [];
    const at = trace.at[note]!;
    return Array.from(trace.payload.subarray(at + 1, at + 1 + trace.payload[at]!));
  };
  for (let i = 0; i < trace.count; i++) {
    const index = trace.subject[i]!;
    const frame = trace.frame[i]!;
    const at = trace.at[i]!;
    const first = trace.payload[at]!;
    switch (trace.kind[i]) {
      case REQUEST:
        requests.set(frame * program.moves.length + index, i);
        break;
      case PERFORMED: {
        const edges = edgesOf(first, index);
        for (const key of edges) usedKeys.add(key);
        events.set(`m${index} ${first}`, { kind: "performed", index, frame, edges });
        if (moves && !moves.has(index)) break;
        performed[PERFORMED_BY[trace.payload[at + 1]!]!]++;
        if (edges.length > 0) {
          let last = -1;
          for (const key of edges) last = Math.max(last, Math.floor(key / program.sourceCount));
          delays.push(frame - last);
        }
        break;
      }
      case LOST: {
        const reason = trace.payload[at + 1]!;
        if (reason === BEATEN || (moves && !moves.has(index))) break;
        const why = LOSS_REASONS[reason]!;
        lost[why] = (lost[why] ?? 0) + 1;
        for (const key of edgesOf(first, index)) lostKeys.add(key);
        break;
      }
      case PROMPT: {
        if (first !== OK && first !== FAILED && first < GRADED) break;
        const turn = turns.get(index) ?? 0;
        turns.set(index, turn + 1);
        events.set(`p${index} ${turn} ${first}`, { kind: "prompt", index, frame, edges: [] });
      }
    }
  }
  for (const key of usedKeys) lostKeys.delete(key);
  return { events, performed, lost, lostPresses: lostKeys, delays };
}
