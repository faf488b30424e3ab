import type { Program } from "../../program/program";
import type { FAILURES, LapseReason, LossReason, PerformedBy } from "../../trace/trace";
import type { Fate } from "./fate";

/** Counts by name; an absent name counts 0. */
export type Tally<Name extends string> = Readonly<Partial<Record<Name, number>>>;

type Failure = (typeof FAILURES)[number];

/** The reasons of losses to another move, as counts list them. */
export const LOST_TO = ["beaten", "replaced", "busy"] as const;
export type LostTo = (typeof LOST_TO)[number];

/** The requests of a move by their end: asked = performed + lost + pending. */
export interface MoveCounts {
  readonly asked: number;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** By reason. */
  readonly lost: Tally<LossReason>;
  /** For each reason that is a loss to another move: the number of losses by the index of that move. */
  readonly lostTo: Readonly<Record<LostTo, Tally<string>>>;
  /** Neither performed nor lost by the end of the trace. */
  readonly pending: number;
  /** The number of presses (not requests) it lost (see lostMovesOf). */
  readonly lostPresses: number;
}

/** How often a pattern began to form, fired and lapsed. A pattern that fires at once never forms. */
export interface PatternCounts {
  readonly formed: number;
  readonly fired: number;
  readonly lapsed: Tally<LapseReason>;
}

/** The showings of a prompt by their end: shown = answered + failed + showing. */
export interface PromptCounts {
  readonly shown: number;
  readonly answered: number;
  /** Answers by index of their grade; ungraded ones are only in `answered`. */
  readonly graded: readonly number[];
  readonly failed: Tally<Failure>;
  readonly showing: number;
}

/** The number of presses by fate; the sum is all presses. */
export type PressCounts = Readonly<Record<Fate["outcome"], number>>;

/** The counts of every rule, by its index in the program. */
export interface RuleCounts {
  readonly patterns: readonly PatternCounts[];
  readonly moves: readonly MoveCounts[];
  readonly prompts: readonly PromptCounts[];
  readonly presses: PressCounts;
}

type Writable<T> = {
  -readonly [K in keyof T]: T[K] extends number
    ? number
    : T[K] extends readonly number[]
      ? number[]
      : { -readonly [N in keyof T[K]]: T[K][N] };
};

/** Counts still being added to. */
export interface CountsDraft {
  readonly patterns: Writable<PatternCounts>[];
  readonly moves: Writable<MoveCounts>[];
  readonly prompts: Writable<PromptCounts>[];
  readonly presses: Writable<PressCounts>;
}

/** Zero counts of one rule by its list; those of a prompt have a number for each of its grades. */
const ZERO = {
  patterns: () => ({ formed: 0, fired: 0, lapsed: {} }),
  moves: () => ({
    asked: 0,
    performed: { direct: 0, buffer: 0, coyote: 0, both: 0 },
    lost: {},
    lostTo: { beaten: {}, replaced: {}, busy: {} },
    pending: 0,
    lostPresses: 0,
  }),
  prompts: ({ grades }: Program["prompts"][number]) => ({
    shown: 0,
    answered: 0,
    graded: grades.map(() => 0),
    failed: {},
    showing: 0,
  }),
};

/** Creates zero counts of presses by fate. */
export function noPresses(): Writable<PressCounts> {
  return { used: 0, lost: 0, fired: 0, ended: 0, lapsed: 0, unheard: 0 };
}

/** Creates zero counts for every rule of a program. */
export function createCounts({ patterns, moves, prompts }: Program): CountsDraft {
  return {
    patterns: patterns.map(ZERO.patterns),
    moves: moves.map(ZERO.moves),
    prompts: prompts.map(ZERO.prompts),
    presses: noPresses(),
  };
}

/** Adds one to a name of a tally. */
export function count<Name extends string>(tally: { -readonly [N in Name]?: number }, name: Name): void {
  tally[name] = (tally[name] ?? 0) + 1;
}

/** Adds the numbers of one value to those of another of the same shape; absent names count as 0. */
function addInto(sum: Record<string, unknown>, more: Readonly<Record<string, unknown>>): void {
  for (const [key, value] of Object.entries(more)) {
    if (typeof value === "number") sum[key] = ((sum[key] as number | undefined) ?? 0) + value;
    else addInto(sum[key] as Record<string, unknown>, value as Readonly<Record<string, unknown>>);
  }
}

/** Returns the sum of counts of one program over several takes; zero counts if there are none. */
export function sumCounts(program: Program, all: readonly RuleCounts[]): RuleCounts {
  const sum = createCounts(program);
  for (const counts of all)
    addInto(
      sum as unknown as Record<string, unknown>,
      counts as unknown as Readonly<Record<string, unknown>>,
    );
  return sum;
}

/** A kind of rule that has counts. */
export type CountedList = keyof typeof ZERO;

/** Returns the sum of the counts of one rule over several takes, without those of the others. */
export function sumRuleCounts<L extends CountedList>(
  program: Program,
  all: readonly RuleCounts[],
  list: L,
  index: number,
): RuleCounts[L][number] {
  const sum =
    list === "prompts" ? ZERO.prompts(program.prompts[index]!) : ZERO[list as "moves" | "patterns"]();
  for (const counts of all)
    addInto(sum as Record<string, unknown>, counts[list][index] as unknown as Record<string, unknown>);
  return sum as RuleCounts[L][number];
}

/** Returns the sum of a tally. */
export function totalOf(tally: Tally<string>): number {
  return Object.values(tally).reduce<number>((sum, n) => sum + (n ?? 0), 0);
}
