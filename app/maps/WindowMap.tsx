import { useId } from "react";
import { formatMs, largest, parseFrames, type Kit, type Move } from "#core";
import { Histogram } from "../ui/Histogram";
import { formatFound } from "./countWords";
import { Dots } from "./Dots";
import { Hatch } from "./Hatch";
import { PullEdge } from "./PullEdge";
import { createScale, MAP_WIDTH } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";
import { TriedOffer } from "./TriedOffer";
import { countWindow, listWindowDots, lostPresses, type WindowDot } from "./windowDots";
import { useDocument } from "../document/context";

const STRIP_Y = 34;
const STRIP_HEIGHT = 62;
const DOT_ROWS = 4;
/** The drawn length of the open range: real ones differ, and only its two ends matter here. */
const OPEN_FRAMES = 14;

/**
 * The window of a move around one of its needed gates: before it opens, while open, after it closes; each
 * real press with its present outcome.
 */
export function WindowMap({ kit, move, index, need }: { kit: Kit; move: Move; index: number; need: number }) {
  const hatchId = useId();
  const now = useTakes();
  const rate = useDocument(state => state.kit?.rate ?? 60);
  if (!now) return null;
  const { gate: gateId, coyote } = move.needs![need]!;
  const gate = now.program.gates.findIndex(item => item.id === gateId);
  const gateName = kit.gates?.find(item => item.id === gateId)?.name ?? gateId;
  const buffer = parseFrames(move.buffer ?? "0f", rate, "atMost") ?? 0;
  const forgiven = coyote === undefined ? 0 : (parseFrames(coyote, rate, "atMost") ?? 0);
  const dots = now.reads.flatMap((read, take) =>
    listWindowDots(read, index, gate).map(dot => ({ ...dot, of: read.of, take })),
  );
  const counts = countWindow(dots, buffer, forgiven);
  const before = Math.max(12, Math.ceil(buffer * 1.6) + 3);
  const after = Math.max(12, Math.ceil(forgiven * 1.6) + 3);
  const scale = createScale(-before, OPEN_FRAMES + after - 1);
  const bottom = STRIP_Y + STRIP_HEIGHT;
  const placeOf = (dot: WindowDot) => {
    if (dot.side === "early") return -Math.min(dot.frames, before) + 0.5;
    if (dot.side === "late") return OPEN_FRAMES - 1 + Math.min(dot.frames, after - 1) + 0.5;
    return Math.min(OPEN_FRAMES - 0.5, 0.5 + (OPEN_FRAMES - 1) * (1 - Math.exp(-dot.frames / 20)));
  };
  const bufferPath = ["moves", index, "buffer"];
  const coyotePath = ["moves", index, "needs", need, "coyote"];
  const waits = dots.filter(dot => dot.fate === "buffer" || dot.fate === "both").map(dot => dot.waited);
  const performed = counts.direct + counts.buffer + counts.coyote + counts.both;
  return (
    <figure className="mt-5" data-testid="window-map">
      <figcaption className="mb-1 text-sm text-soft">
        {dots.length === 0 ? (
          `No request for it in these takes yet: play, and each one appears here, performed, saved or lost.`
        ) : (
          <>
            {formatFound(dots.length, "request", "requests", now.takes.length)}
            <b className="text-ink">
              {performed} performed, {counts.buffer + counts.both} of them by memory and{" "}
              {counts.coyote + counts.both} forgiven
            </b>
            {counts.early + counts.late + counts.spent + counts.hopeless > 0 && (
              <b className="text-foxglove">
                {counts.early > 0 && ` · ${counts.early} lost early, the nearest by ${counts.earlyBy}f`}
                {counts.late > 0 && ` · ${counts.late} lost late, the nearest by ${counts.lateBy}f`}
                {counts.spent > 0 && ` · ${counts.spent} lost while ${gateName} was spent`}
                {counts.hopeless > 0 && ` · ${counts.hopeless} lost where ${gateName} never opened`}
              </b>
            )}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${MAP_WIDTH} ${bottom + 36}`}
        className="w-full max-w-[720px]"
        role="group"
        aria-label={`Window of ${move.name} about ${gateName}: remembered ${buffer} frames before, forgiven ${forgiven} after`}
      >
        <Hatch id={hatchId} colour="lichen" />
        <rect
          x={scale.x(-buffer)}
          y={STRIP_Y}
          width={scale.x(0) - scale.x(-buffer)}
          height={STRIP_HEIGHT}
          fill={`url(#${hatchId})`}
        />
        <rect
          x={scale.x(0)}
          y={STRIP_Y}
          width={scale.x(OPEN_FRAMES) - scale.x(0)}
          height={STRIP_HEIGHT}
          className="fill-lichen"
        />
        <rect
          x={scale.x(OPEN_FRAMES)}
          y={STRIP_Y}
          width={scale.x(OPEN_FRAMES + forgiven) - scale.x(OPEN_FRAMES)}
          height={STRIP_HEIGHT}
          fill={`url(#${hatchId})`}
        />
        <text x={scale.x(-before) + 4} y={STRIP_Y - 10} className="fill-ink text-xs">
          remembered before
        </text>
        <text
          x={scale.x(OPEN_FRAMES / 2)}
          y={STRIP_Y - 10}
          textAnchor="middle"
          className="fill-ink text-xs font-semibold"
        >
          {gateName} open
        </text>
        <text x={MAP_WIDTH - 4} y={STRIP_Y - 10} textAnchor="end" className="fill-ink text-xs">
          forgiven after
        </text>
        <Dots
          dots={dots.map((dot, k) => ({
            x: scale.x(placeOf(dot)),
            y: STRIP_Y + 11 + (k % DOT_ROWS) * 13,
            look: dot.fate === "lost" ? "lost" : dot.fate === "direct" ? "whole" : "saved",
            place: dot,
          }))}
        />
        <PullEdge
          target={{ path: bufferPath, rounding: "atMost", least: 0, label: `${move.name}: buffer` }}
          scale={scale}
          at={-buffer}
          frames={buffer}
          top={STRIP_Y - 5}
          bottom={bottom + 4}
          direction={-1}
        />
        <PullEdge
          target={{ path: coyotePath, rounding: "atMost", least: 0, label: `${move.name}: coyote` }}
          scale={scale}
          at={OPEN_FRAMES + forgiven}
          frames={forgiven}
          top={STRIP_Y - 5}
          bottom={bottom + 4}
        />
        <TimeAxis scale={createScale(-before, 0, scale.x(1))} y={bottom + 4} rateHz={rate} isSigned />
        <g transform={`translate(${scale.x(OPEN_FRAMES - 1)} 0)`}>
          <TimeAxis
            scale={createScale(0, after, scale.x(OPEN_FRAMES + after) - scale.x(OPEN_FRAMES - 1))}
            y={bottom + 4}
            rateHz={rate}
            isSigned
          />
        </g>
      </svg>
      <div className="flex flex-col gap-1 text-sm" data-testid="window-offers">
        <TriedOffer
          kit={kit}
          now={now}
          verb="Remember for"
          what="lost early"
          lever={{ path: bufferPath, rounding: "atMost", direction: 1, base: "0f" }}
          wanted={lostPresses(dots, "early")}
          mostFrames={rate}
        />
        <TriedOffer
          kit={kit}
          now={now}
          verb="Forgive for"
          what="lost late"
          lever={{ path: coyotePath, rounding: "atMost", direction: 1, base: "0f" }}
          wanted={lostPresses(dots, "late")}
          mostFrames={rate}
        />
      </div>
      {buffer > 0 && (
        <div className="mt-2 text-sm">
          <p className="text-foxglove">
            The price of memory: what is remembered comes out late, by {buffer}f ({formatMs(buffer, rate)}) at
            most
            {waits.length > 0 && `; in these takes ${waits.length} waited, ${largest(waits, 0)}f at worst`}.
          </p>
          {waits.length > 0 && (
            <Histogram
              label="How long remembered presses waited"
              values={waits}
              binWidth={1}
              bins={Math.min(30, buffer + 1)}
              unit="f"
            />
          )}
        </div>
      )}
    </figure>
  );
}
