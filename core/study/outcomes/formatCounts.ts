import { joinNames, timesWords } from "../../formats/words";
import type { PerformedBy } from "../../trace/trace";
import {
  LOST_TO,
  totalOf,
  type LostTo,
  type MoveCounts,
  type PatternCounts,
  type PromptCounts,
} from "./ruleCounts";

/** The ways of being performed other than directly, as suffixes of a count. */
const MEANS: readonly (readonly [PerformedBy, string])[] = [
  ["buffer", "by buffer"],
  ["coyote", "by coyote"],
  ["both", "by both"],
];

/** Formats how often something happened: "fired 3 times", "never fired". */
const happened = (did: string, count: number) =>
  count === 0 ? `never ${did}` : `${did} ${timesWords(count)}`;

/** Returns the number of performed requests. */
export function performedOf({ performed }: Pick<MoveCounts, "performed">): number {
  return totalOf(performed);
}

/** The words for losses to other moves, by reason; "4 as Toll used the press". */
const LOST_TO_WORDS: Readonly<Record<LostTo, (others: string) => string>> = {
  beaten: others => `as ${others} used the press`,
  replaced: others => `replaced by a newer press for ${others}`,
  busy: others => `as ${others} came first`,
};

function lostWords(counts: MoveCounts, nameOf: (move: number) => string): string {
  const lost = totalOf(counts.lost);
  if (lost === 0) return "";
  const prompts = counts.lost.prompt ?? 0;
  const parts = [
    ...LOST_TO.flatMap(reason => {
      const others = Object.keys(counts.lostTo[reason]).map(move => nameOf(Number(move)));
      return others.length > 0 ? [`${counts.lost[reason]} ${LOST_TO_WORDS[reason](joinNames(others))}`] : [];
    }),
    ...(prompts > 0 ? [`${prompts} to a prompt`] : []),
  ];
  return `, lost ${timesWords(lost)}${parts.length > 0 ? ` (${parts.join(", ")})` : ""}`;
}

/**
 * Formats the counts of a move: "asked for 12 times: performed 9 times (2 by buffer), lost 3 times (1 as
 * Toll used the press); 2 presses lost". The first numbers count requests, the last presses. `nameOf` returns the
 * name of a move by its index.
 */
export function formatMoveCounts(counts: MoveCounts, nameOf: (move: number) => string): string {
  const { asked, performed, pending, lostPresses } = counts;
  if (asked === 0) return "never asked for";
  const by = MEANS.flatMap(([means, word]) => (performed[means] > 0 ? [`${performed[means]} ${word}`] : []));
  const means = by.length > 0 ? ` (${by.join(", ")})` : "";
  const waiting = pending > 0 ? `, ${pending} still waiting` : "";
  const presses = lostPresses === 0 ? "" : `; ${lostPresses} ${lostPresses === 1 ? "press" : "presses"} lost`;
  return `asked for ${timesWords(asked)}: ${happened("performed", performedOf(counts))}${means}${lostWords(counts, nameOf)}${waiting}${presses}`;
}

/** Formats how often a pattern fired and lapsed: "fired 3 times, lapsed once". */
export function formatPatternCounts({ formed, fired, lapsed }: PatternCounts): string {
  const lapses = totalOf(lapsed);
  if (fired + lapses > 0)
    return `${happened("fired", fired)}${lapses > 0 ? `, lapsed ${timesWords(lapses)}` : ""}`;
  return formed > 0 ? `began ${timesWords(formed)}, never fired` : "never began";
}

/**
 * Formats how the showings of a prompt ended: "shown 3 times: answered 2 times (1 perfect), failed once". `grades`: those of the
 * prompt.
 */
export function formatPromptCounts(
  { shown, answered, graded, failed, showing }: PromptCounts,
  grades: readonly { readonly name: string }[] = [],
): string {
  if (shown === 0) return "never shown";
  const reached = grades.flatMap(({ name }, g) => (graded[g] ? [`${graded[g]} ${name}`] : []));
  const as = reached.length > 0 ? ` (${reached.join(", ")})` : "";
  const open = showing > 0 ? ", still showing" : "";
  return `shown ${timesWords(shown)}: ${happened("answered", answered)}${as}, ${happened("failed", totalOf(failed))}${open}`;
}
