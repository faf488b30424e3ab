import { Fragment, useId } from "react";
import { countWords, formatMs, largest, type Kit, type Move } from "#core";
import { Histogram } from "../ui/Histogram";
import { TermWord } from "../ui/Explained";
import { Dots } from "./Dots";
import { Hatch } from "./Hatch";
import { formatUndrawn } from "./countWords";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { createScale, MAP_WIDTH } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes, type TakesNow } from "./useTakes";
import { TriedOffer } from "./TriedOffer";
import { countRequests, lostPresses, type WindowCounts } from "./windowDots";
import { layoutWindow, OPEN_FRAMES, type WindowLayout } from "./windowLayout";

const STRIP_Y = 34;
const STRIP_HEIGHT = 62;
const BOTTOM = STRIP_Y + STRIP_HEIGHT;
const DOT_AREA = { top: STRIP_Y + 11, pitchPx: 13, rows: 4 };

function targetsOf(
  move: Move,
  index: number,
  need: number,
): Readonly<Record<"buffer" | "coyote", EdgeTarget>> {
  const target = (path: EdgeTarget["path"], label: string): EdgeTarget => ({
    path,
    rounding: "atMost",
    least: 0,
    label: `${move.name}: ${label}`,
  });
  return {
    buffer: target(["moves", index, "buffer"], "buffer"),
    coyote: target(["moves", index, "needs", need, "coyote"], "coyote"),
  };
}

/** Formats the losses of a window by their cause. */
function lossWords(
  { early, earlyBy, late, lateBy, spent, hopeless }: WindowCounts,
  gateName: string,
): string[] {
  return [
    early > 0 ? `${early} lost early, the nearest by ${earlyBy}f` : "",
    late > 0 ? `${late} lost late, the nearest by ${lateBy}f` : "",
    spent > 0 ? `${spent} lost while ${gateName} was spent` : "",
    hopeless > 0 ? `${hopeless} lost where ${gateName} never opened` : "",
  ].filter(words => words !== "");
}

/** The strip of a window: the buffer before it, its open range, its coyote, with the requests as dots. */
function WindowStrip({
  layout,
  targets,
  rateHz,
}: {
  layout: WindowLayout;
  targets: ReturnType<typeof targetsOf>;
  rateHz: number;
}) {
  const hatchId = useId();
  const { scale, before, after, buffer, coyote, gateName } = layout;
  const strip = { scale, y: STRIP_Y, height: STRIP_HEIGHT };
  const edge = { scale, top: STRIP_Y - 5, bottom: BOTTOM + 4 };
  const afterWidth = scale.x(OPEN_FRAMES + after) - scale.x(OPEN_FRAMES - 1);
  return (
    <>
      <Hatch id={hatchId} colour="lichen" />
      <Stretch {...strip} from={-buffer} to={0} fill={`url(#${hatchId})`} />
      <Stretch {...strip} from={0} to={OPEN_FRAMES} look="fill-lichen" />
      <Stretch {...strip} from={OPEN_FRAMES} to={OPEN_FRAMES + coyote} fill={`url(#${hatchId})`} />
      <g className="fill-ink text-xs">
        <text x={scale.x(-before) + 4} y={STRIP_Y - 10}>
          buffer, before it opens
        </text>
        <text x={scale.x(OPEN_FRAMES / 2)} y={STRIP_Y - 10} textAnchor="middle" className="font-semibold">
          {gateName} open
        </text>
        <text x={MAP_WIDTH - 4} y={STRIP_Y - 10} textAnchor="end">
          coyote, after it closes
        </text>
      </g>
      <Dots
        dots={layout.dots.map(dot => ({
          x: scale.x(layout.placeOf(dot)),
          look: dot.fate === "lost" ? "lost" : dot.fate === "direct" ? "whole" : "saved",
          place: dot,
        }))}
        area={DOT_AREA}
      />
      <PullEdge {...edge} target={targets.buffer} at={-buffer} frames={buffer} direction={-1} />
      <PullEdge {...edge} target={targets.coyote} at={OPEN_FRAMES + coyote} frames={coyote} />
      <TimeAxis scale={createScale(-before, 0, scale.x(1))} y={BOTTOM + 4} rateHz={rateHz} isSigned />
      <g transform={`translate(${scale.x(OPEN_FRAMES - 1)} 0)`}>
        <TimeAxis scale={createScale(0, after, afterWidth)} y={BOTTOM + 4} rateHz={rateHz} isSigned />
      </g>
    </>
  );
}

/** Offers of a longer buffer and a longer coyote for the lost presses. */
function WindowOffers({
  kit,
  now,
  layout: { dots },
  targets,
}: {
  kit: Kit;
  now: TakesNow;
  layout: WindowLayout;
  targets: ReturnType<typeof targetsOf>;
}) {
  const offers = [
    { side: "early", verb: "Set the buffer to", what: "lost early", path: targets.buffer.path },
    { side: "late", verb: "Set the coyote to", what: "lost late", path: targets.coyote.path },
  ] as const;
  return (
    <div className="flex flex-col gap-1 text-sm" data-testid="window-offers">
      {offers.map(({ side, verb, what, path }) => (
        <TriedOffer
          key={side}
          kit={kit}
          now={now}
          verb={verb}
          what={what}
          lever={{ path, rounding: "atMost", direction: 1, base: "0f" }}
          wanted={lostPresses(dots, side)}
          mostFrames={kit.rate}
        />
      ))}
    </div>
  );
}

/** The delay that a buffer adds, at most and in the takes. */
function BufferPrice({
  buffer,
  waits,
  rateHz,
}: {
  buffer: number;
  waits: readonly number[];
  rateHz: number;
}) {
  if (buffer === 0) return null;
  return (
    <div className="mt-2 text-sm">
      <p className="text-foxglove">
        The price of the buffer: a buffered press acts late, by {buffer}f ({formatMs(buffer, rateHz)}) at most
        {waits.length > 0 && `; in these takes ${waits.length} waited, ${largest(waits, 0)}f at worst`}.
      </p>
      {waits.length > 0 && (
        <Histogram
          label="How long buffered presses waited"
          values={waits}
          binWidth={1}
          bins={Math.min(30, buffer + 1)}
          unit="f"
        />
      )}
    </div>
  );
}

/**
 * The window of a move around one of its needed gates: before it opens, while open, after it closes; each
 * real press with its present outcome.
 */
export function WindowMap({ kit, move, index, need }: { kit: Kit; move: Move; index: number; need: number }) {
  const now = useTakes();
  if (!now) return null;
  const layout = layoutWindow(kit, move, index, need, now);
  const { dots, counts, buffer, coyote, gateName } = layout;
  const targets = targetsOf(move, index, need);
  const requests = countRequests(now.reads, index, dots.length);
  const performed = counts.direct + counts.buffer + counts.coyote + counts.both;
  const means = (["buffer", "coyote"] as const).flatMap(of =>
    counts[of] + counts.both > 0 ? [[counts[of] + counts.both, of] as const] : [],
  );
  return (
    <MapFigure
      testId="window-map"
      label={`Window of ${move.name} about ${gateName}: buffer ${countWords(buffer, "frame")} before, coyote ${coyote} after`}
      heightPx={BOTTOM + 36}
      caption={
        <CountCaption
          found={requests.asked}
          takes={now.takes.length}
          one="request"
          many="requests"
          empty="No request for it in these takes yet: play, and each one appears here, performed, saved or lost."
          kept={
            <>
              {performed} performed
              {means.map(([count, of]) => (
                <Fragment key={of}>
                  , {count} by <TermWord of={of}>{of}</TermWord>
                </Fragment>
              ))}
            </>
          }
          lost={lossWords(counts, gateName)}
          rest={formatUndrawn(requests)}
        />
      }
      drawing={<WindowStrip layout={layout} targets={targets} rateHz={kit.rate} />}
    >
      <WindowOffers kit={kit} now={now} layout={layout} targets={targets} />
      <BufferPrice buffer={buffer} waits={layout.waits} rateHz={kit.rate} />
    </MapFigure>
  );
}
