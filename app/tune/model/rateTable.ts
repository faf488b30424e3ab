import { nameOf, type AlignedEvent, type Kit } from "#core";
import type { VersionStory } from "../../judging/jobs/stories";

/** A rule with events of its own: a move or a prompt. */
export interface RateRule {
  readonly id: string;
  readonly kind: "performed" | "prompt";
  readonly name: string;
}

/** Returns the moves and prompts of a kit, in order. */
export function listRateRules(kit: Kit): RateRule[] {
  return [
    ...(kit.moves ?? []).map(({ id }) => ({
      id,
      kind: "performed" as const,
      name: nameOf(kit, "moves", id),
    })),
    ...(kit.prompts ?? []).map(({ id }) => ({
      id,
      kind: "prompt" as const,
      name: nameOf(kit, "prompts", id),
    })),
  ];
}

/** Returns the events of a rule at one rate, by its index among the judged ones. */
export function eventsAt(
  stories: readonly VersionStory[],
  version: number,
  { kind, id }: Pick<RateRule, "kind" | "id">,
): AlignedEvent[] {
  return stories
    .filter(story => story.version === version)
    .flatMap(({ events }) => events.filter(event => event.kind === kind && event.id === id));
}

const DIFFERENCES = [
  ["gone", (n: number) => `${n} gone`],
  ["new", (n: number) => `${n} new`],
  ["changed", (n: number) => `${n} other`],
  ["slipped", (n: number) => `${n} moved`],
] as const;

/** Returns the differences among events with their counts, such as "2 gone"; empty if all are the same. */
export function countDifferences(events: readonly AlignedEvent[]): string[] {
  return DIFFERENCES.flatMap(([what, format]) => {
    const count = events.filter(event => event.what === what).length;
    return count > 0 ? [format(count)] : [];
  });
}

/** Toggles a rate in a list, in ascending order. */
export function toggleRate(rates: readonly number[], rate: number): number[] {
  return rates.includes(rate) ? rates.filter(item => item !== rate) : [...rates, rate].sort((a, b) => a - b);
}
