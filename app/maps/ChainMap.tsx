import { useDeferredValue, useMemo } from "react";
import { findFollowUp, listLinks, parseFrames, type FollowUp, type Kit, type Move } from "#core";
import { createScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { cutLetters } from "../ui/fitText";

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
  const moves = kit.moves!;
  const rows = [...new Set(links.flatMap(({ first, second }) => [first, second]))].sort((a, b) => a - b);
  const totals = rows.map(row => partsOf(kit, moves[row]!).reduce((sum, part) => sum + part, 0));
  const lasts = links.map(({ found }) => found?.latestPress ?? 0);
  const upTo = Math.max(20, ...totals, ...lasts) + 3;
  const inner = createScale(0, upTo, 680 - LEFT);
  const scale = { ...inner, x: (frame: number) => LEFT + inner.x(frame) };
  const height = rows.length * ROW;
  return (
    <figure className="mt-5" data-testid="chain-map">
      <figcaption className="mb-1 text-sm text-soft">
        What follows what: on each bar, when a press brings the next one.
      </figcaption>
      <svg
        viewBox={`0 0 680 ${height + 38}`}
        className="w-full max-w-[720px]"
        role="img"
        aria-label={links
          .map(
            ({ first, second, found }) =>
              `After ${moves[first]!.name}, ${linkWords(moves[second]!.name, found)}`,
          )
          .join(". ")}
      >
        {rows.map((row, r) => {
          const move = moves[row]!;
          const [startup, active, recovery] = partsOf(kit, move);
          const y = r * ROW + 4;
          return (
            <g key={move.id}>
              <text
                x="0"
                y={y + 13}
                className={`text-sm ${row === index ? "fill-moss font-semibold" : "fill-ink"}`}
              >
                {cutLetters(move.name, 17)}
              </text>
              <rect x={scale.x(0)} y={y} width={inner.x(startup)} height={BAR} className="fill-fern" />
              <rect
                x={scale.x(startup)}
                y={y - 2}
                width={inner.x(active)}
                height={BAR + 4}
                className="fill-moss"
              />
              <rect
                x={scale.x(startup + active)}
                y={y}
                width={inner.x(recovery)}
                height={BAR}
                className="fill-sand"
              />
              {links
                .filter(link => link.first === row)
                .map(({ second, found }, k) => {
                  const at = y + BAR + 4 + k * 14;
                  if (!found) return null;
                  return (
                    <g key={second}>
                      <rect
                        x={scale.x(found.earliestPress)}
                        y={at}
                        width={inner.x(found.latestPress + 1 - found.earliestPress)}
                        height="10"
                        className="fill-lichen"
                      />
                      <rect
                        x={scale.x(found.earliest)}
                        y={at - 3}
                        width="2.5"
                        height="16"
                        className="fill-ink"
                      />
                      <text x={scale.x(found.latestPress + 1) + 6} y={at + 9} className="fill-ink text-xs">
                        {cutLetters(moves[second]!.name, 18)}
                      </text>
                    </g>
                  );
                })}
            </g>
          );
        })}
        <TimeAxis scale={scale} y={height} rateHz={kit.rate} />
      </svg>
      <ul className="text-sm">
        {links.map(({ first, second, found }) => (
          <li key={`${first} ${second}`} className={found ? "" : "text-soft"}>
            After {moves[first]!.name}, {linkWords(moves[second]!.name, found)}.
          </li>
        ))}
      </ul>
      {all.length > links.length && (
        <p className="text-sm text-soft">
          {all.length - links.length} more links of this chain were not tried.
        </p>
      )}
    </figure>
  );
}
