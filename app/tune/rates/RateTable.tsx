import type { AlignedEvent } from "#core";
import { useStudySettings } from "../../document/studiesContext";
import type { VersionStory } from "../../judging/jobs/stories";
import { Button } from "../../ui/Button";
import { countDifferences, groupEvents, isSameRule, type StoryRule } from "../model/storyRules";

/** The result of one rule at one rate; choosing it lists its differences. `events` is undefined while it is not judged. */
function RateCell({
  rule,
  rate,
  events,
}: {
  rule: StoryRule;
  rate: number;
  events: readonly AlignedEvent[] | undefined;
}) {
  const [{ chosen }, set] = useStudySettings("rates");
  if (!events) return <span className="px-2 text-soft">·</span>;
  if (events.length === 0) return <span className="px-2 text-soft">–</span>;
  const parts = countDifferences(events);
  const isAlike = parts.length === 0;
  return (
    <Button
      look="quiet"
      aria-pressed={chosen?.rate === rate && isSameRule(chosen, rule)}
      aria-label={`${rule.name} at ${rate}: ${isAlike ? `all ${events.length} the same` : parts.join(", ")}`}
      className={isAlike ? "" : "text-foxglove!"}
      onClick={() => set({ chosen: { rate, kind: rule.kind, id: rule.id } })}
    >
      {isAlike ? `${events.length} same` : parts.join(", ")}
    </Button>
  );
}

/** Rules as rows, judged rates as columns, the differences in each cell. */
export function RateTable({
  rules,
  stories,
}: {
  rules: readonly StoryRule[];
  stories: readonly VersionStory[];
}) {
  const [{ drawn }] = useStudySettings("rates");
  if (stories.length === 0) return null;
  const eventsAt = drawn.map((_, version) => groupEvents(stories.filter(story => story.version === version)));
  const judged = new Set(stories.map(({ version }) => version));
  return (
    <table className="mt-1 text-sm" data-testid="rates">
      <thead>
        <tr>
          <th scope="col" className="pr-4 text-left font-normal text-soft">
            rule
          </th>
          {drawn.map(rate => (
            <th key={rate} scope="col" className="px-3 text-right font-mono font-normal text-soft">
              at {rate}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rules.map(rule => (
          <tr key={`${rule.kind} ${rule.id}`} className="border-t border-line">
            <th scope="row" className="pr-4 text-left font-normal">
              {rule.name}
            </th>
            {drawn.map((rate, version) => (
              <td key={rate} className="px-1 text-right">
                <RateCell
                  rule={rule}
                  rate={rate}
                  events={judged.has(version) ? eventsAt[version]!(rule) : undefined}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
