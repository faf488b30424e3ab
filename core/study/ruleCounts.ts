import type { Program } from "../run/program";
import {
  FAILED,
  FIRE,
  LAPSE,
  LOSS_REASONS,
  LOST,
  OPENED,
  PERFORMED,
  PERFORMED_BY,
  PROMPT,
  REQUEST,
  SHOWN,
  type PerformedBy,
  type Trace,
} from "../trace/trace";

/** What came of a move's requests: how many were made, by which means performed, how many gave way to another, and how many came to nothing. */
export interface MoveCounts {
  readonly asked: number;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  readonly gaveWay: number;
  readonly lost: number;
}

export interface PatternCounts {
  readonly fired: number;
  readonly lapsed: number;
}

export interface PromptCounts {
  readonly shown: number;
  readonly answered: number;
  readonly failed: number;
}

/** By rule, in the program's order, what some runs came to. */
export interface RuleCounts {
  readonly patterns: readonly PatternCounts[];
  readonly moves: readonly MoveCounts[];
  readonly prompts: readonly PromptCounts[];
}

type Writable<T> = { -readonly [K in keyof T]: T[K] extends number ? number : Record<PerformedBy, number> };

const GAVE_WAY = LOSS_REASONS.indexOf("beaten");

/** Counts what every rule came to over traces of one program: notes only, each counted once. A request still waiting at the end is asked, and nothing else. */
export function countRules(program: Program, traces: readonly Trace[]): RuleCounts {
  const patterns = program.patterns.map((): Writable<PatternCounts> => ({ fired: 0, lapsed: 0 }));
  const prompts = program.prompts.map((): Writable<PromptCounts> => ({ shown: 0, answered: 0, failed: 0 }));
  const moves = program.moves.map((): Writable<MoveCounts> => ({
    asked: 0,
    performed: { direct: 0, buffer: 0, coyote: 0, both: 0 },
    gaveWay: 0,
    lost: 0,
  }));
  for (const trace of traces)
    for (let i = 0; i < trace.count; i++) {
      const subject = trace.subject[i]!;
      const at = trace.at[i]!;
      switch (trace.kind[i]) {
        case FIRE:
          patterns[subject]!.fired++;
          break;
        case LAPSE:
          patterns[subject]!.lapsed++;
          break;
        case REQUEST:
          moves[subject]!.asked++;
          break;
        case PERFORMED:
          moves[subject]!.performed[PERFORMED_BY[trace.payload[at + 1]!]!]++;
          break;
        case LOST:
          if (trace.payload[at + 1] === GAVE_WAY) moves[subject]!.gaveWay++;
          else moves[subject]!.lost++;
          break;
        case PROMPT: {
          const outcome = trace.payload[at]!;
          if (outcome === SHOWN) prompts[subject]!.shown++;
          else if (outcome === FAILED) prompts[subject]!.failed++;
          else if (outcome !== OPENED) prompts[subject]!.answered++;
        }
      }
    }
  return { patterns, moves, prompts };
}

const times = (count: number) => (count === 1 ? "once" : `${count} times`);

/** What a move came to, in words: "asked 12 times: performed 9 times, 2 of them by memory; 3 came to nothing". */
export function formatMoveCounts({ asked, performed, gaveWay, lost }: MoveCounts): string {
  if (asked === 0) return "never asked for";
  const { direct, buffer, coyote, both } = performed;
  const done = direct + buffer + coyote + both;
  const means = [
    [buffer, "by memory"],
    [coyote, "forgiven"],
    [both, "by both"],
  ] as const;
  const by = means.flatMap(([count, word]) => (count > 0 ? [`${count} ${word}`] : []));
  const parts = [
    `performed ${done === 0 ? "never" : times(done)}${by.length > 0 ? ` (${by.join(", ")})` : ""}`,
    ...(gaveWay > 0 ? [`gave way ${times(gaveWay)}`] : []),
    ...(lost > 0 ? [`came to nothing ${times(lost)}`] : []),
  ];
  return `asked for ${times(asked)}: ${parts.join(", ")}`;
}

/** What a pattern came to, in words. */
export function formatPatternCounts({ fired, lapsed }: PatternCounts): string {
  if (fired + lapsed === 0) return "never began";
  return `fired ${fired === 0 ? "never" : times(fired)}${lapsed > 0 ? `, lapsed ${times(lapsed)}` : ""}`;
}

/** What a prompt came to, in words. */
export function formatPromptCounts({ shown, answered, failed }: PromptCounts): string {
  if (shown === 0) return "never shown";
  return `shown ${times(shown)}: answered ${answered === 0 ? "never" : times(answered)}, failed ${failed === 0 ? "never" : times(failed)}`;
}
