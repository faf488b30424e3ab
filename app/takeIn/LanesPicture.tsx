import { nameOf, cutLetters, type Kit, type Take } from "#core";

const WIDTH = 760;
const LABEL = 120;
const ROW = 22;
/** The length of the recording that is drawn. */
const SECONDS = 12;

/** Returns the ranges in which a control is above 0, or a gate open, in frames of the take. */
function barsOf(lane: Take["lanes"][string], end: number): { from: number; to: number }[] {
  const bars: { from: number; to: number }[] = [];
  lane.forEach(([x, value], k) => {
    if (value > 0 && x < end) bars.push({ from: x, to: Math.min(end, lane[k + 1]?.[0] ?? end) });
  });
  return bars;
}

/** Returns the frames on which a game performed a move as a lane: a frame each. */
const marksOf = (xs: readonly number[]): Take["lanes"][string] =>
  xs.flatMap((x): [number, number][] => [
    [x, 1],
    [x + 1, 0],
  ]);

/** Returns the speed of a take as a lane: 1 where the game does not run at full speed. */
const slowOf = (speed: NonNullable<Take["speed"]>): Take["lanes"][string] =>
  speed.map(([x, percent]): [number, number] => [x, percent === 100 ? 0 : 1]);

const LOOKS = {
  controls: "fill-bark",
  gates: "fill-fern",
  moves: "fill-moss",
  speed: "fill-lichen",
} as const;

/** The lanes of an imported recording, over its first seconds. */
export function LanesPicture({ kit, take }: { kit: Kit; take: Take }) {
  const end = Math.max(1, Math.min(take.frames, SECONDS * take.rate));
  const xOf = (frame: number) => LABEL + (frame / end) * (WIDTH - LABEL);
  const lanesOf = (list: "controls" | "gates" | "moves", lanes: Take["lanes"]) =>
    Object.entries(lanes).map(([id, lane]) => ({ name: nameOf(kit, list, id), lane, list }));
  const acts = Object.entries(take.did ?? {}).map(([id, xs]): [string, Take["lanes"][string]] => [
    id,
    marksOf(xs),
  ]);
  const lanes = [
    ...lanesOf("controls", take.lanes),
    ...lanesOf("gates", take.gates ?? {}),
    ...lanesOf("moves", Object.fromEntries(acts)),
    ...(take.speed ? [{ name: "slowed, stopped", lane: slowOf(take.speed), list: "speed" as const }] : []),
  ];
  const bottom = lanes.length * ROW;
  if (lanes.length === 0)
    return <p className="text-sm text-soft">No lane yet: choose what plays which control or gate.</p>;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${bottom + 18}`}
      className="w-full"
      role="img"
      aria-label="Preview of its lanes"
    >
      {lanes.map(({ name, lane, list }, row) => (
        <g key={row}>
          <text x="0" y={row * ROW + 15} className="fill-ink text-xs">
            {cutLetters(name, 18)}
          </text>
          <rect x={LABEL} y={row * ROW + 3} width={WIDTH - LABEL} height={ROW - 6} className="fill-sand" />
          {barsOf(lane, end).map(({ from, to }, k) => (
            <rect
              key={k}
              x={xOf(from)}
              y={row * ROW + 3}
              width={Math.max(2, xOf(to) - xOf(from))}
              height={ROW - 6}
              className={LOOKS[list]}
            />
          ))}
        </g>
      ))}
      {[0, 0.25, 0.5, 0.75].map(share => (
        <text key={share} x={xOf(end * share)} y={bottom + 14} className="fill-soft font-mono text-xs">
          {Math.round(end * share)}f
        </text>
      ))}
    </svg>
  );
}
