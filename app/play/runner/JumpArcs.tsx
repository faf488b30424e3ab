import type { JumpFacts } from "#stage";

const WIDTH = 280;
const HEIGHT = 96;
const LOOKS = ["stroke-soft", "stroke-fern", "stroke-moss"] as const;

/** The arcs of the presses shown, over a grid of tiles. */
export function JumpArcs({ all }: { all: readonly JumpFacts[] }) {
  const most = Math.max(1, ...all.map(facts => facts.height)) * 1.1;
  const frames = Math.max(1, ...all.map(facts => facts.airFrames));
  const path = (facts: JumpFacts) =>
    [
      "M0 " + HEIGHT,
      ...facts.arc.map(
        (y, k) => `L${(((k + 1) / frames) * WIDTH).toFixed(1)} ${(HEIGHT - (y / most) * HEIGHT).toFixed(1)}`,
      ),
      `L${((facts.airFrames / frames) * WIDTH).toFixed(1)} ${HEIGHT}`,
    ].join("");
  return (
    <svg
      viewBox={`0 -4 ${WIDTH} ${HEIGHT + 6}`}
      className="w-full"
      role="img"
      aria-label="Arcs of a tap, a half and a full press"
    >
      {Array.from({ length: Math.floor(most) + 1 }, (_, tile) => (
        <line
          key={tile}
          x1="0"
          x2={WIDTH}
          y1={HEIGHT - (tile / most) * HEIGHT}
          y2={HEIGHT - (tile / most) * HEIGHT}
          className="stroke-line"
        />
      ))}
      {all.map((facts, k) => (
        <path
          key={k}
          d={path(facts)}
          fill="none"
          strokeWidth={1.5 + k * 0.6}
          strokeDasharray={k === 0 ? "3 4" : undefined}
          className={LOOKS[k]}
        />
      ))}
    </svg>
  );
}
