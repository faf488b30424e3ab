import { useDeferredValue, useMemo } from "react";
import { findFollowUp, listLinks, parseFrames, cutLetters, type FollowUp, type Kit, type Move } from "#core";
import { MapFigure, Stretch } from "./MapFigure";
import { createScale, MAP_WIDTH, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";

/** The maximum number of links tried: each takes dozens of runs. */
const MAX_LINKS = 8;
/** The maximum number of links followed. */
const MAX_LINKS_FOLLOWED = 2000;
const ROW = 54;
const LEFT = 132;
const BAR = 16;

interface Link {
  readonly first: number;
  readonly second: number;
  readonly found: FollowUp | undefined;
}

/** Returns the links of the chain that contains a move, from its start, in order. */
function chainOf(links: readonly (readonly [number, number])[], move: number): (readonly [number, number])[] {
  // With more links it is no chain: only the neighbours are shown.
  if (links.length > MAX_LINKS_FOLLOWED)
    return links.filter(([first, second]) => first === move || second === move);
  const part = new Set([move]);
  let grown = -1;
  while (grown !== part.size) {
    grown = part.size;
    for (const [first, second] of links) if (part.has(first) || part.has(second)) part.add(first).add(second);
  }
  return links.filter(([first]) => part.has(first));
}

function partsOf(kit: Kit, move: Move): readonly [number, number, number] {
  const frames = (written: string | undefined) => parseFrames(written ?? "0f", kit.rate, "atLeast") ?? 0;
  return [frames(move.frames?.startup), frames(move.frames?.active), frames(move.frames?.recovery)];
}

/** Formats the timing of a follow-up. */
function linkWords(name: string, found: FollowUp | undefined): string {
  if (!found) return `${name} was not reached by its own input alone`;
  const { earliestPress, latestPress, earliest, gain } = found;
  const won = gain > 0 ? `, ${gain}f before it would be over` : "";
  return `${name}: pressed from ${earliestPress}f to ${latestPress}f, out at ${earliest}f at the earliest${won}`;
}

/** The chain's map: a row for each move, to scale. */
interface ChainScale extends MapScale {
  /** Converts a number of frames to px. */
  readonly width: (frames: number) => number;
}

/** Lays out the rows of a chain and the scale that holds its longest move and its latest press. */
function layoutChain(kit: Kit, links: readonly Link[]): { rows: readonly number[]; scale: ChainScale } {
  const rows = [...new Set(links.flatMap(({ first, second }) => [first, second]))].sort((a, b) => a - b);
  const totals = rows.map(row => partsOf(kit, kit.moves![row]!).reduce((sum, part) => sum + part, 0));
  const lasts = links.map(({ found }) => found?.latestPress ?? 0);
  const upTo = Math.max(20, ...totals, ...lasts) + 3;
  const inner = createScale(0, upTo, MAP_WIDTH - LEFT);
  return { rows, scale: { ...inner, x: frame => LEFT + inner.x(frame), width: inner.x } };
}

/** The frames on which a follow-up can be pressed, and the earliest at which it is performed. */
function FollowUpBar({
  found,
  name,
  y,
  scale,
}: {
  found: FollowUp;
  name: string;
  y: number;
  scale: ChainScale;
}) {
  const { earliestPress, latestPress, earliest } = found;
  return (
    <g>
      <Stretch scale={scale} from={earliestPress} to={latestPress + 1} y={y} height={10} look="fill-lichen" />
      <rect x={scale.x(earliest)} y={y - 3} width="2.5" height="16" className="fill-ink" />
      <text x={scale.x(latestPress + 1) + 6} y={y + 9} className="fill-ink text-xs">
        {cutLetters(name, 18)}
      </text>
    </g>
  );
}

/** A move of the chain: its name, its parts, and the follow-ups that were found. */
function ChainRow({
  kit,
  row,
  y,
  isOpen,
  links,
  scale,
}: {
  kit: Kit;
  row: number;
  y: number;
  isOpen: boolean;
  links: readonly Link[];
  scale: ChainScale;
}) {
  const move = kit.moves![row]!;
  const [startup, active, recovery] = partsOf(kit, move);
  const own = links.filter(link => link.first === row);
  return (
    <g>
      <text x="0" y={y + 13} className={`text-sm ${isOpen ? "fill-moss font-semibold" : "fill-ink"}`}>
        {cutLetters(move.name, 17)}
      </text>
      <rect x={scale.x(0)} y={y} width={scale.width(startup)} height={BAR} className="fill-fern" />
      <rect
        x={scale.x(startup)}
        y={y - 2}
        width={scale.width(active)}
        height={BAR + 4}
        className="fill-moss"
      />
      <rect
        x={scale.x(startup + active)}
        y={y}
        width={scale.width(recovery)}
        height={BAR}
        className="fill-sand"
      />
      {own.map(
        ({ second, found }, k) =>
          found && (
            <FollowUpBar
              key={second}
              found={found}
              name={kit.moves![second]!.name}
              y={y + BAR + 4 + k * 14}
              scale={scale}
            />
          ),
      )}
    </g>
  );
}

/**
 * The map of moves that follow each other, each with its own bar and the frames on which the next can be
 * pressed, found by running the rules for each press.
 */
export function ChainMap({ kit: newest, index }: { kit: Kit; index: number }) {
  // Every frame of every link is one run, so the sentence and the pointer are handled first.
  const kit = useDeferredValue(newest);
  const all = useMemo(() => chainOf(listLinks(kit), index), [kit, index]);
  const links = useMemo(
    () =>
      all
        .slice(0, MAX_LINKS)
        .map(([first, second]): Link => ({ first, second, found: findFollowUp(kit, first, second) })),
    [kit, all],
  );
  if (links.length === 0) return null;
  const { rows, scale } = layoutChain(kit, links);
  const nameOf = (move: number) => kit.moves![move]!.name;
  const wordsOf = ({ first, second, found }: Link) =>
    `After ${nameOf(first)}, ${linkWords(nameOf(second), found)}`;
  const height = rows.length * ROW;
  return (
    <MapFigure
      testId="chain-map"
      role="img"
      caption="What follows what: on each bar, when a press brings the next one."
      label={links.map(wordsOf).join(". ")}
      heightPx={height + 38}
      drawing={
        <>
          {rows.map((row, r) => (
            <ChainRow
              key={row}
              kit={kit}
              row={row}
              y={r * ROW + 4}
              isOpen={row === index}
              links={links}
              scale={scale}
            />
          ))}
          <TimeAxis scale={scale} y={height} rateHz={kit.rate} />
        </>
      }
    >
      <ul className="text-sm">
        {links.map(link => (
          <li key={`${link.first} ${link.second}`} className={link.found ? "" : "text-soft"}>
            {wordsOf(link)}.
          </li>
        ))}
      </ul>
      {all.length > links.length && (
        <p className="text-sm text-soft">
          {all.length - links.length} more links of this chain were not tried.
        </p>
      )}
    </MapFigure>
  );
}
