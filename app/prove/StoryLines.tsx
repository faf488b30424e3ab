import type { KeptEvent, Kit } from "#core";
import { nameOf } from "#core";

const WIDTH = 300;
const ROW = 22;

const wordOf = (kit: Kit, [f, kind, id, outcome]: KeptEvent) =>
  `${nameOf(kit, kind === "performed" ? "moves" : "prompts", id)}${outcome ? ` ${outcome}` : ""} at ${f}f`;

/** The kept story and the present one overlaid: events that agree in one colour, the rest highlighted. */
export function StoryLines({
  kit,
  kept,
  now,
  agree,
  frames,
}: {
  kit: Kit;
  kept: readonly KeptEvent[];
  now: readonly KeptEvent[];
  /** The number of events that agree from the start. */
  agree: number;
  frames: number;
}) {
  const xOf = (f: number) => 4 + (f / Math.max(1, frames)) * (WIDTH - 8);
  const line = (story: readonly KeptEvent[], y: number) =>
    story.map((event, k) => (
      <line
        key={k}
        x1={xOf(event[0])}
        x2={xOf(event[0])}
        y1={y}
        y2={y + ROW - 6}
        strokeWidth={k < agree ? 2 : 3}
        className={k < agree ? "stroke-fern" : "stroke-foxglove"}
      />
    ));
  const was = kept[agree];
  const is = now[agree];
  return (
    <figure className="mt-2">
      <svg viewBox={`0 0 ${WIDTH} ${ROW * 2}`} className="w-full" aria-hidden>
        <line x1="0" x2={WIDTH} y1={ROW} y2={ROW} className="stroke-line" />
        {line(kept, 4)}
        {line(now, ROW + 4)}
      </svg>
      <figcaption className="text-xs">
        above, as kept; below, now. {agree > 0 && `The first ${agree} agree. `}
        {was ? `Then ${wordOf(kit, was)} was kept` : "Nothing more was kept"}
        {is ? `, and ${wordOf(kit, is)} comes.` : ", and nothing comes."}
      </figcaption>
    </figure>
  );
}
