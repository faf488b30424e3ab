import { useId } from "react";
import { largest, parseFrames, type Kit, type Move } from "#core";
import { formatFound } from "./countWords";
import { Dots } from "./Dots";
import { Hatch } from "./Hatch";
import { PullEdge } from "./PullEdge";
import { createScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";
import { TriedOffer } from "./TriedOffer";
import { listBanDots, lostPresses } from "./windowDots";

const STRIP_Y = 26;
const STRIP_HEIGHT = 48;
const DOT_ROWS = 3;

/** Returns the words for a banning gate: a busy gate by its slot. */
function gateWords(kit: Kit, id: string): string {
  const busy = /^busy:(.*)$/.exec(id);
  if (busy) return `${busy[1]} busy`;
  return kit.gates?.find(gate => gate.id === id)?.name ?? id;
}

/**
 * The map of a move around a gate that bans it: presses while it is open are buffered or lost, later ones
 * performed at once.
 */
export function BanMap({ kit, move, index, ban }: { kit: Kit; move: Move; index: number; ban: number }) {
  const hatchId = useId();
  const now = useTakes();
  if (!now) return null;
  const id = move.bans![ban]!;
  const gate = now.program.gates.findIndex(item => item.id === id);
  const name = gateWords(kit, id);
  const buffer = parseFrames(move.buffer ?? "0f", kit.rate, "atMost") ?? 0;
  const dots = now.reads.flatMap((read, take) =>
    listBanDots(read, index, gate).map(dot => ({ ...dot, of: read.of, take })),
  );
  const early = dots.filter(dot => dot.side === "early");
  const lost = early.filter(dot => dot.fate === "lost");
  const nearest = lost.reduce((least, dot) => Math.min(least, dot.frames - buffer), Infinity);
  const before = Math.min(
    90,
    Math.max(
      16,
      Math.ceil(buffer * 1.6) + 4,
      Math.ceil(
        largest(
          early.map(dot => dot.frames),
          0,
        ),
      ) + 2,
    ),
  );
  const after = 16;
  const scale = createScale(-before, after - 1);
  const bottom = STRIP_Y + STRIP_HEIGHT;
  return (
    <figure className="mt-5" data-testid="ban-map">
      <figcaption className="mb-1 text-sm text-soft">
        {dots.length === 0 ? (
          `No request for it met ${name} in these takes yet.`
        ) : (
          <>
            {formatFound(dots.length, "request", "requests", now.takes.length)}
            <b className="text-ink">
              {early.length - lost.length} while {name} and remembered, {dots.length - early.length} after it
            </b>
            {lost.length > 0 && (
              <b className="text-foxglove">
                {" "}
                · {lost.length} lost too early
                {Number.isFinite(nearest) && nearest > 0 && `, the nearest by ${nearest}f`}
              </b>
            )}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${scale.widthPx} ${bottom + 36}`}
        className="w-full max-w-[720px]"
        role="group"
        aria-label={`${move.name} about ${name}: remembered ${buffer} frames before it is over`}
      >
        <Hatch id={hatchId} colour="lichen" />
        <rect x="0" y={STRIP_Y} width={scale.x(0)} height={STRIP_HEIGHT} className="fill-sand" />
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
          width={scale.widthPx - scale.x(0)}
          height={STRIP_HEIGHT}
          className="fill-lichen"
        />
        <text x={scale.x(-before) + 4} y={STRIP_Y - 8} className="fill-ink text-xs">
          {name}
        </text>
        <text x={scale.x(0) + 6} y={STRIP_Y - 8} className="fill-ink text-xs font-semibold">
          over
        </text>
        <Dots
          dots={dots.map((dot, k) => ({
            x: scale.x(
              dot.side === "early"
                ? -Math.min(dot.frames, before) + 0.5
                : Math.min(dot.frames, after - 2) + 0.5,
            ),
            y: STRIP_Y + 10 + (k % DOT_ROWS) * 14,
            look: dot.fate === "lost" ? "lost" : dot.side === "early" ? "saved" : "whole",
            place: dot,
          }))}
        />
        <PullEdge
          target={{
            path: ["moves", index, "buffer"],
            rounding: "atMost",
            least: 0,
            label: `${move.name}: buffer`,
          }}
          scale={scale}
          at={-buffer}
          frames={buffer}
          top={STRIP_Y - 5}
          bottom={bottom + 4}
          direction={-1}
        />
        <TimeAxis scale={scale} y={bottom + 4} rateHz={kit.rate} isSigned />
      </svg>
      <div className="text-sm">
        <TriedOffer
          kit={kit}
          now={now}
          verb="Remember for"
          what="lost too early"
          lever={{ path: ["moves", index, "buffer"], rounding: "atMost", direction: 1, base: "0f" }}
          wanted={lostPresses(dots, "early")}
          mostFrames={kit.rate}
        />
      </div>
    </figure>
  );
}
