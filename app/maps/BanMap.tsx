import { useId } from "react";
import { countWords, gateName, largest, parseFrames, type Kit, type Move } from "#core";
import { Dots } from "./Dots";
import { Hatch } from "./Hatch";
import { formatUndrawn } from "./countWords";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge } from "./PullEdge";
import { createScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes, type TakesNow } from "./useTakes";
import { TriedOffer } from "./TriedOffer";
import { countBan, countRequests, listBanDots, lostPresses, type BanCounts } from "./windowDots";

const STRIP_Y = 26;
const DOT_AREA = { top: STRIP_Y + 10, pitchPx: 14, rows: 3 };
const STRIP_HEIGHT = 48;
const BOTTOM = STRIP_Y + STRIP_HEIGHT;
/** The frames shown after the end of the ban. */
const AFTER = 16;
/** The range of frames shown before it. */
const MIN_BEFORE = 16;
const MAX_BEFORE = 90;

/** Lays out the requests of a move around the end of a ban. Lengths in frames. */
function layoutBan(kit: Kit, move: Move, index: number, ban: number, now: TakesNow) {
  const id = move.bans![ban]!;
  const gate = now.program.gates.findIndex(item => item.id === id);
  const buffer = parseFrames(move.buffer ?? "0f", kit.rate, "atMost") ?? 0;
  const dots = now.reads.flatMap((read, take) =>
    listBanDots(read, index, gate).map(dot => ({ ...dot, of: read.of, take })),
  );
  const earliest = largest(
    dots.flatMap(({ side, frames }) => (side === "early" ? [frames] : [])),
    0,
  );
  const wanted = Math.max(MIN_BEFORE, Math.ceil(buffer * 1.6) + 4, Math.ceil(earliest) + 2);
  const before = Math.min(MAX_BEFORE, wanted);
  return {
    name: gateName(kit, id),
    buffer,
    before,
    scale: createScale(-before, AFTER - 1),
    dots,
    counts: countBan(dots, buffer),
  };
}

/** Formats how many requests were performed, and how many of them had waited for the end of the ban. */
function performedWords({ buffered, free }: BanCounts, name: string): string {
  const kept = buffered > 0 ? `, ${buffered} of them kept until ${name} was over` : "";
  return `${buffered + free} performed${kept}`;
}

/** Formats the losses at a ban by their cause. */
function lossWords({ early, earlyBy, hopeless, caught }: BanCounts, name: string): string[] {
  return [
    early > 0 ? `${early} lost too early, the nearest by ${earlyBy}f` : "",
    hopeless > 0 ? `${hopeless} lost where ${name} did not end` : "",
    caught > 0 ? `${caught} lost while waiting, as ${name} began` : "",
  ].filter(words => words !== "");
}

/** The strip of a ban: the banned range, the buffer at its end, and the requests as dots. */
function BanStrip({
  layout: { name, buffer, before, scale, dots },
  move,
  index,
  rateHz,
}: {
  layout: ReturnType<typeof layoutBan>;
  move: Move;
  index: number;
  rateHz: number;
}) {
  const hatchId = useId();
  const strip = { scale, y: STRIP_Y, height: STRIP_HEIGHT };
  const target = {
    path: ["moves", index, "buffer"],
    rounding: "atMost",
    least: 0,
    label: `${move.name}: buffer`,
  } as const;
  return (
    <>
      <Hatch id={hatchId} colour="lichen" />
      <Stretch {...strip} from={-before} to={0} look="fill-sand" />
      <Stretch {...strip} from={-buffer} to={0} fill={`url(#${hatchId})`} />
      <Stretch {...strip} from={0} to={AFTER} look="fill-lichen" />
      <text x={scale.x(-before) + 4} y={STRIP_Y - 8} className="fill-ink text-xs">
        {name}
      </text>
      <text x={scale.x(0) + 6} y={STRIP_Y - 8} className="fill-ink text-xs font-semibold">
        over
      </text>
      <Dots
        dots={dots.map(dot => ({
          x: scale.x(
            dot.side === "early"
              ? -Math.min(dot.frames, before) + 0.5
              : Math.min(dot.frames, AFTER - 2) + 0.5,
          ),
          look: dot.fate === "lost" ? "lost" : dot.side === "early" ? "saved" : "whole",
          place: dot,
        }))}
        area={DOT_AREA}
      />
      <PullEdge
        target={target}
        scale={scale}
        at={-buffer}
        frames={buffer}
        top={STRIP_Y - 5}
        bottom={BOTTOM + 4}
        direction={-1}
      />
      <TimeAxis scale={scale} y={BOTTOM + 4} rateHz={rateHz} isSigned />
    </>
  );
}

/**
 * The map of a move around a gate that bans it: presses while it is open are buffered or lost, later ones
 * performed at once.
 */
export function BanMap({ kit, move, index, ban }: { kit: Kit; move: Move; index: number; ban: number }) {
  const now = useTakes();
  if (!now) return null;
  const layout = layoutBan(kit, move, index, ban, now);
  const { name, buffer, dots, counts } = layout;
  const requests = countRequests(now.reads, index, dots.length);
  return (
    <MapFigure
      testId="ban-map"
      label={`${move.name} about ${name}: buffer ${countWords(buffer, "frame")} before it is over`}
      heightPx={BOTTOM + 36}
      caption={
        <CountCaption
          found={requests.asked}
          takes={now.takes.length}
          one="request"
          many="requests"
          empty={`No request for it in these takes yet: play, and each one appears here, before or after the end of ${name}.`}
          kept={performedWords(counts, name)}
          lost={lossWords(counts, name)}
          rest={formatUndrawn(requests)}
        />
      }
      drawing={<BanStrip layout={layout} move={move} index={index} rateHz={kit.rate} />}
    >
      <div className="text-sm">
        <TriedOffer
          kit={kit}
          now={now}
          verb="Set the buffer to"
          what="lost too early"
          lever={{ path: ["moves", index, "buffer"], rounding: "atMost", direction: 1, base: "0f" }}
          wanted={lostPresses(dots, "early")}
          mostFrames={kit.rate}
        />
      </div>
    </MapFigure>
  );
}
