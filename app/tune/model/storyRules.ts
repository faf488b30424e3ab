import { groupBy, nameOf, type AlignedEvent, type Kit } from "#core";
import type { VersionStory } from "../../judging/jobs/stories";

/** A rule with events of its own in a story: a move or a prompt. */
export interface StoryRule {
  readonly id: string;
  readonly kind: "performed" | "prompt";
  readonly name: string;
}

const LISTS = [
  ["moves", "performed"],
  ["prompts", "prompt"],
] as const;

/** Returns the moves and then the prompts of a kit, in order, and after each those that only the other kit has. */
export function listStoryRules(kit: Kit, other: Kit = kit): StoryRule[] {
  return LISTS.flatMap(([list, kind]) => {
    const own = kit[list] ?? [];
    const ids = new Set(own.map(({ id }) => id));
    const gone = (other[list] ?? []).filter(({ id }) => !ids.has(id));
    return [
      ...own.map(({ id }) => ({ id, kind, name: nameOf(kit, list, id) })),
      ...gone.map(({ id }) => ({ id, kind, name: nameOf(other, list, id) })),
    ];
  });
}

/** Returns whether two rules are the same one. */
export const isSameRule = (
  one: Pick<StoryRule, "kind" | "id"> | undefined,
  other: Pick<StoryRule, "kind" | "id">,
): boolean => one?.kind === other.kind && one.id === other.id;

/** Returns a function that gives the events of a rule in stories, in their order. */
export function groupEvents(
  stories: readonly VersionStory[],
): (rule: Pick<StoryRule, "kind" | "id">) => readonly AlignedEvent[] {
  const keyOf = ({ kind, id }: Pick<StoryRule, "kind" | "id">) => `${kind} ${id}`;
  const byRule = groupBy(
    stories.flatMap(({ events }) => events),
    keyOf,
  );
  return rule => byRule.get(keyOf(rule)) ?? [];
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
