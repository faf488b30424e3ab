import { formatMs, largest, parseFrames, type PatternOf } from "#core";
import { formatFound } from "./countWords";
import { Distribution } from "./Distribution";
import { Dots } from "./Dots";
import { PullEdge } from "./PullEdge";
import { createScale, MAP_WIDTH } from "./scale";
import { listTapGaps, priceOfTaps } from "./tapGaps";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";
import { useDocument } from "../document/context";

const STRIP_Y = 58;
const STRIP_HEIGHT = 54;
const DOT_ROWS = 4;

/** Formats frames with their ms. */
function both(frames: number, rateHz: number): string {
  return `${frames}f (${formatMs(frames, rateHz)})`;
}

/** Describes the cost of a way of answering. */
function priceWords(pattern: PatternOf<"taps">, gapFrames: number, rateHz: number): string {
  switch (pattern.answer) {
    case "final":
      return `The price: a single tap is answered ${both(priceOfTaps("final", gapFrames).waits, rateHz)} late, when no further tap can come.`;
    case "each":
      return "The price: nothing waits, but the first tap fires too, so whatever a single does happens on the way to the double.";
    case "nth":
      return `The single tap costs nothing and waits for nothing; it is simply not what this rule answers.`;
  }
}

/** The taps of a chain as rungs, the gaps between them to scale, and every real gap as a dot judged by it. */
export function TapLadder({ pattern, index }: { pattern: PatternOf<"taps">; index: number }) {
  const kit = useDocument(state => state.kit);
  const now = useTakes();
  if (!kit || !now) return null;
  const gap = parseFrames(pattern.gap, kit.rate, "atMost") ?? 0;
  const upTo = Math.max(24, Math.ceil(gap * 1.8) + 4);
  const taps = now.reads.flatMap(read =>
    listTapGaps(read, index, upTo).map(tap => ({ ...tap, of: read.of })),
  );
  const gaps = taps.map(tap => tap.gap);
  const slow = gaps.filter(frames => frames > gap);
  const nearest =
    Math.ceil(
      -largest(
        slow.map(frames => -frames),
        -Infinity,
      ),
    ) - gap;
  const scale = createScale(0, upTo);
  const bottom = STRIP_Y + STRIP_HEIGHT;
  const rungs = Math.min(pattern.count, Math.floor(upTo / Math.max(1, gap)) + 1, 6);
  return (
    <figure className="mt-5" data-testid="tap-ladder">
      <figcaption className="mb-1 text-sm text-soft">
        {gaps.length === 0 ? (
          "No two presses close to each other yet: play, and the gaps appear here as dots."
        ) : (
          <>
            {formatFound(gaps.length, "gap", "gaps", now.takes.length)}
            <b className="text-ink">{gaps.length - slow.length} quick enough</b>
            {slow.length > 0 && (
              <b className="text-foxglove">
                {" "}
                · {slow.length} too slow, the nearest by {nearest}f
              </b>
            )}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${MAP_WIDTH} ${bottom + 36}`}
        className="w-full max-w-[720px]"
        role="group"
        aria-label={`Taps no more than ${gap} frames apart`}
      >
        {Array.from({ length: rungs }, (_, k) => (
          <g key={k} aria-hidden>
            <ellipse
              cx={scale.x(k * gap) + 11}
              cy="18"
              rx="10"
              ry="8"
              className={
                k === pattern.count - 1 || pattern.answer === "each" ? "fill-moss" : "fill-leaf stroke-moss"
              }
              strokeWidth="2"
            />
            <text x={scale.x(k * gap) + 26} y="22" className="fill-ink text-xs">
              {k + 1}
              {k === 0 ? "st" : k === 1 ? "nd" : k === 2 ? "rd" : "th"} tap
            </text>
            {k + 1 < rungs && (
              <path
                d={`M${scale.x(k * gap) + 11} 32v6H${scale.x((k + 1) * gap) + 11}v-6`}
                fill="none"
                className="stroke-soft"
                strokeWidth="1.5"
              />
            )}
          </g>
        ))}
        <rect x="0" y={STRIP_Y} width={scale.x(gap + 1)} height={STRIP_HEIGHT} className="fill-fern" />
        <text x="8" y={STRIP_Y - 6} className="fill-ink text-xs">
          quick enough
        </text>
        <text x={scale.x(gap + 1) + 12} y={STRIP_Y - 6} className="fill-soft text-xs">
          too slow: a new chain begins
        </text>
        <Dots
          dots={taps.map((tap, k) => ({
            x: scale.x(tap.gap + 0.5),
            y: STRIP_Y + 9 + (k % DOT_ROWS) * 12,
            look: tap.gap > gap ? "missed" : "whole",
            place: tap,
          }))}
        />
        <PullEdge
          target={{
            path: ["patterns", index, "gap"],
            rounding: "atMost",
            least: 1,
            label: `${pattern.name}: gap`,
          }}
          scale={scale}
          at={gap + 1}
          frames={gap}
          top={STRIP_Y - 5}
          bottom={bottom + 4}
        />
        <TimeAxis scale={scale} y={bottom + 4} rateHz={kit.rate} />
      </svg>
      <Distribution words="How far apart taps were" label="Gaps between taps" values={gaps} upTo={upTo} />
      <p className="text-sm text-foxglove">{priceWords(pattern, gap, kit.rate)}</p>
    </figure>
  );
}
