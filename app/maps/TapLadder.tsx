import { countWords, formatMs, parseFrames, type PatternOf } from "#core";
import { Distribution } from "./Distribution";
import { Dots } from "./Dots";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge } from "./PullEdge";
import { createScale, type MapScale } from "./scale";
import { listTapGaps, priceOfTaps } from "./tapGaps";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";
import { useDocument } from "../document/workbenchContext";

const STRIP_Y = 58;
const STRIP_HEIGHT = 54;
const BOTTOM = STRIP_Y + STRIP_HEIGHT;
const DOT_AREA = { top: STRIP_Y + 9, pitchPx: 12, rows: 4 };
const MAX_RUNGS = 6;
const ORDINALS = ["st", "nd", "rd"];

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

/** The taps of a chain as ellipses, with the gaps between them to scale. */
function Rungs({
  pattern,
  gap,
  scale,
}: {
  pattern: PatternOf<"taps">;
  /** In frames. */
  gap: number;
  scale: MapScale;
}) {
  const rungs = Math.min(pattern.count, Math.floor(scale.to / Math.max(1, gap)) + 1, MAX_RUNGS);
  return Array.from({ length: rungs }, (_, k) => {
    const fires = k === pattern.count - 1 || pattern.answer === "each";
    return (
      <g key={k} aria-hidden>
        <ellipse
          cx={scale.x(k * gap) + 11}
          cy="18"
          rx="10"
          ry="8"
          className={fires ? "fill-moss" : "fill-leaf stroke-moss"}
          strokeWidth="2"
        />
        <text x={scale.x(k * gap) + 26} y="22" className="fill-ink text-xs">
          {k + 1}
          {ORDINALS[k] ?? "th"} tap
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
    );
  });
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
  const missedBy = Math.ceil(slow.reduce((least, frames) => Math.min(least, frames), Infinity)) - gap;
  const scale = createScale(0, upTo);
  const strip = { scale, y: STRIP_Y, height: STRIP_HEIGHT };
  const target = {
    path: ["patterns", index, "gap"],
    rounding: "atMost",
    least: 1,
    label: `${pattern.name}: gap`,
  } as const;
  return (
    <MapFigure
      testId="tap-ladder"
      label={`Taps no more than ${countWords(gap, "frame")} apart`}
      heightPx={BOTTOM + 36}
      caption={
        <CountCaption
          found={gaps.length}
          takes={now.takes.length}
          one="gap"
          many="gaps"
          empty="No two presses close to each other yet: play, and the gaps appear here as dots."
          kept={`${gaps.length - slow.length} quick enough`}
          lost={slow.length > 0 ? [`${slow.length} too slow, the nearest by ${missedBy}f`] : []}
        />
      }
      drawing={
        <>
          <Rungs pattern={pattern} gap={gap} scale={scale} />
          <Stretch {...strip} from={0} to={gap + 1} look="fill-fern" />
          <text x="8" y={STRIP_Y - 6} className="fill-ink text-xs">
            quick enough
          </text>
          <text x={scale.x(gap + 1) + 12} y={STRIP_Y - 6} className="fill-soft text-xs">
            too slow: a new chain begins
          </text>
          <Dots
            dots={taps.map(tap => ({
              x: scale.x(tap.gap + 0.5),
              look: tap.gap > gap ? "missed" : "whole",
              place: tap,
            }))}
            area={DOT_AREA}
          />
          <PullEdge
            target={target}
            scale={scale}
            at={gap + 1}
            frames={gap}
            top={STRIP_Y - 5}
            bottom={BOTTOM + 4}
          />
          <TimeAxis scale={scale} y={BOTTOM + 4} rateHz={kit.rate} />
        </>
      }
    >
      <Distribution words="How far apart taps were" label="Gaps between taps" values={gaps} upTo={upTo} />
      <p className="text-sm text-foxglove">{priceWords(pattern, gap, kit.rate)}</p>
    </MapFigure>
  );
}
