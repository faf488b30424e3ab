import { nameOf, type AlignedEvent, type Kit } from "#core";
import type { VersionStory } from "../judging/jobs/stories";
import { FrameLink } from "./FrameLink";
import { ListInParts } from "./ListInParts";

/** The number of differences that are shown first, and with each request for more. */
const PART = 40;
const WORDS = {
  new: "is new",
  gone: "is gone",
  slipped: "moves",
  changed: "changes",
  same: "stays",
} as const;

/** Formats one difference between two kits: "Hop is gone", "Hop is 16.7 ms later". */
function differenceWords(
  kits: readonly [Kit, Kit],
  { kind, id, what, was, is, outcomeWas, outcomeIs }: AlignedEvent,
): string {
  const list = kind === "performed" ? "moves" : "prompts";
  const kit = kits.find(one => one[list]?.some(rule => rule.id === id)) ?? kits[0];
  const name = nameOf(kit, list, id);
  if (what === "changed") return `${name}: ${outcomeIs ?? "?"} instead of ${outcomeWas ?? "?"}`;
  const outcome = outcomeIs ?? outcomeWas;
  const label = outcome ? `${name} (${outcome})` : name;
  if (what !== "slipped") return `${label} ${WORDS[what]}`;
  const ms = Math.round((is - was) * 10_000) / 10;
  return `${label} is ${Math.abs(ms)} ms ${ms > 0 ? "later" : "earlier"}`;
}

/**
 * The differences of takes between two kits, each a link to its frame in the first one's own rate. A long list is shown in parts.
 */
export function DifferenceList({
  kits,
  stories,
}: {
  kits: readonly [Kit, Kit];
  stories: readonly VersionStory[];
}) {
  const all = stories.flatMap(({ take, events }) =>
    events.filter(({ what }) => what !== "same").map(event => ({ take, event })),
  );
  if (all.length === 0) return <p className="text-soft">Nothing differs in these takes.</p>;
  const rows = all.map(({ take, event }) => () => (
    <FrameLink
      take={take}
      frame={(Number.isNaN(event.was) ? event.is : event.was) * kits[0].rate}
      words={differenceWords(kits, event)}
    />
  ));
  return <ListInParts items={rows} part={PART} testId="differences" />;
}

/**
 * One take's stories as two lines over time: the present one above, the version's below; differences differ
 * in shape.
 */
export function TwoStories({ events, seconds }: { events: readonly AlignedEvent[]; seconds: number }) {
  const xOf = (at: number) => 4 + (at / Math.max(0.001, seconds)) * 412;
  return (
    <svg
      viewBox="0 0 420 34"
      className="w-full max-w-[420px]"
      role="img"
      aria-label="above the present story, below the other"
    >
      <line x1="0" x2="420" y1="17" y2="17" className="stroke-line" />
      {events.map((event, k) => {
        const look = event.what === "same" ? "stroke-moss" : "stroke-foxglove";
        const width = event.what === "same" ? 2 : 3;
        return (
          <g key={k} className={look} strokeWidth={width}>
            {!Number.isNaN(event.was) && <line x1={xOf(event.was)} x2={xOf(event.was)} y1="3" y2="15" />}
            {!Number.isNaN(event.is) && (
              <line
                x1={xOf(event.is)}
                x2={xOf(event.is)}
                y1="19"
                y2="31"
                strokeDasharray={event.what === "same" ? "none" : "3 2"}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
