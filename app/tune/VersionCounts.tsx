import { formatMoveCounts, formatPromptCounts, nameOf, type Kit, type RuleCounts } from "#core";
import type { VersionStory } from "../judging/jobs/stories";
import { Button } from "../ui/Button";
import {
  countDifferences,
  groupEvents,
  isSameRule,
  listStoryRules,
  type StoryRule,
} from "./model/storyRules";

/** Formats the counts of a rule under one kit. */
function countsWords(kit: Kit, counts: RuleCounts, { kind, id }: StoryRule): string {
  const list = kind === "performed" ? "moves" : "prompts";
  const index = kit[list]?.findIndex(rule => rule.id === id) ?? -1;
  if (index < 0) return "is not there";
  const nameOfMove = (move: number) => nameOf(kit, "moves", kit.moves?.[move]?.id ?? "");
  return list === "moves"
    ? formatMoveCounts(counts.moves[index]!, nameOfMove)
    : formatPromptCounts(counts.prompts[index]!, kit.prompts?.[index]?.grades);
}

/** The counts of two versions side by side, with the number of differences of each rule; choosing these lists them. */
export function VersionCounts({
  kits,
  counts,
  stories,
  chosen,
  onChoose,
}: {
  kits: readonly [Kit, Kit];
  counts: readonly [RuleCounts, RuleCounts];
  stories: readonly VersionStory[];
  chosen: StoryRule | undefined;
  onChoose: (rule: StoryRule) => void;
}) {
  const eventsOf = groupEvents(stories);
  return (
    <table className="mt-1 text-sm" data-testid="version-counts">
      <tbody>
        {listStoryRules(...kits).map(rule => {
          const one = countsWords(kits[0], counts[0], rule);
          const two = countsWords(kits[1], counts[1], rule);
          const differences = countDifferences(eventsOf(rule)).join(", ");
          return (
            <tr key={`${rule.kind} ${rule.id}`} className="border-t border-line align-top">
              <th scope="row" className="py-1 pr-4 text-left font-normal">
                {rule.name}
              </th>
              <td className="py-1 pr-4">{one}</td>
              <td className={`py-1 pr-4 ${one === two ? "text-soft" : "font-semibold"}`}>
                {one === two ? "the same" : two}
              </td>
              <td className="text-right">
                {differences && (
                  <Button
                    look="quiet"
                    aria-pressed={isSameRule(chosen, rule)}
                    aria-label={`${rule.name}: list ${differences}`}
                    onClick={() => onChoose(rule)}
                  >
                    {differences}
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
