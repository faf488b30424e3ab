import { useId } from "react";
import {
  countWords,
  formatMs,
  gateName,
  listMeanwhile,
  parseFrames,
  cutLetters,
  type Kit,
  type Meanwhile,
  type Move,
} from "#core";
import { Dots } from "./Dots";
import type { DotLook } from "./pileDots";
import { Hatch } from "./Hatch";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { createScale, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";

const BAR_Y = 46;
const BAR = 30;
const ROW = 20;
const DOT_ROWS = 2;
/** The width of a letter of the words beside a line, about. */
const LETTER_PX = 6.2;

const LOOKS: Readonly<Record<Meanwhile["became"], DotLook>> = {
  direct: "whole",
  coyote: "whole",
  buffer: "saved",
  both: "saved",
  lost: "lost",
  waiting: "saved",
};

interface Track {
  readonly words: string;
  readonly from: number;
  readonly to: number;
  readonly look: string;
  readonly edges: readonly { readonly target: EdgeTarget; readonly at: number; readonly frames: number }[];
}

/** Returns the openings and the cooldown of a move, each drawn on a line below the bar. */
function tracksOf(kit: Kit, move: Move, index: number): Track[] {
  const frames = (written: string, rounding: "atLeast" | "atMost") =>
    parseFrames(written, kit.rate, rounding) ?? 0;
  const opens = (move.opens ?? []).map(({ gate, from, to }, k): Track => {
    const [first, last] = [frames(from, "atLeast"), frames(to, "atMost")];
    const name = gateName(kit, gate);
    const path = ["moves", index, "opens", k];
    const target = (field: "from" | "to", rounding: EdgeTarget["rounding"]): EdgeTarget => ({
      path: [...path, field],
      rounding,
      least: field === "to" ? first : 0,
      label: `${name} opened ${field}`,
    });
    return {
      words: `opens ${name}`,
      from: first,
      to: last + 1,
      look: "fill-lichen",
      edges: [
        { target: target("from", "atLeast"), at: first, frames: first },
        { target: target("to", "atMost"), at: last + 1, frames: last },
      ],
    };
  });
  if (move.cooldown === undefined) return opens;
  const cooldown = frames(move.cooldown, "atLeast");
  const target = {
    path: ["moves", index, "cooldown"],
    rounding: "atLeast",
    least: 0,
    label: "cooldown",
  } as const;
  return [
    ...opens,
    {
      words: "not again before",
      from: 0,
      to: cooldown,
      look: "fill-sand",
      edges: [{ target, at: cooldown, frames: cooldown }],
    },
  ];
}

/** The parts of a timeline as one bar; the end of each is draggable. */
function Parts({
  move,
  index,
  parts,
  scale,
  hatchId,
}: {
  move: Move;
  index: number;
  parts: readonly [number, number, number];
  scale: MapScale;
  hatchId: string;
}) {
  const names = ["startup", "active", "recovery"] as const;
  const looks = ["fill-fern", "fill-moss", `url(#${hatchId})`];
  const ends = parts.map((_, k) => parts.slice(0, k + 1).reduce((sum, part) => sum + part, 0));
  return (
    <g>
      {names.map((name, k) => {
        const from = ends[k]! - parts[k]!;
        const width = scale.x(ends[k]!) - scale.x(from);
        return (
          <g key={name}>
            <rect
              x={scale.x(from)}
              y={k === 1 ? BAR_Y - 4 : BAR_Y}
              width={width}
              height={k === 1 ? BAR + 8 : BAR}
              className={k < 2 ? looks[k] : "stroke-fern"}
              fill={k < 2 ? undefined : looks[k]}
            />
            {width > 30 && (
              <text
                x={scale.x(from) + width / 2}
                y={BAR_Y - 12}
                textAnchor="middle"
                className="fill-ink text-xs"
              >
                {width > 74 ? `${name} ${parts[k]}f` : `${parts[k]}f`}
              </text>
            )}
          </g>
        );
      })}
      {names.map((name, k) => (
        <PullEdge
          key={name}
          target={{
            path: ["moves", index, "frames", name],
            rounding: "atLeast",
            least: 0,
            label: `${move.name}: ${name}`,
          }}
          scale={scale}
          at={ends[k]!}
          frames={parts[k]!}
          top={BAR_Y - 6}
          bottom={BAR_Y + BAR + 6}
        />
      ))}
    </g>
  );
}

/** One opening or cooldown, with its words on the side that has more room, cut to it. */
function TrackLine({ track, y, scale }: { track: Track; y: number; scale: MapScale }) {
  const [leftPx, rightPx] = [scale.x(track.from) - 8, scale.widthPx - scale.x(track.to) - 14];
  const isLeft = leftPx > rightPx;
  const words = cutLetters(track.words, Math.max(1, Math.floor(Math.max(leftPx, rightPx) / LETTER_PX)));
  return (
    <g>
      <Stretch
        scale={scale}
        from={track.from}
        to={Math.max(track.to, track.from + 1 / scale.pxPerFrame)}
        y={y + 4}
        height={ROW - 8}
        look={track.look}
      />
      <text
        x={isLeft ? scale.x(track.from) - 6 : scale.x(track.to) + 12}
        y={y + 14}
        textAnchor={isLeft ? "end" : "start"}
        className="fill-ink text-xs"
      >
        {words}
        {words !== track.words && <title>{track.words}</title>}
      </text>
      {track.edges.map(edge => (
        <PullEdge key={edge.target.label} {...edge} scale={scale} top={y} bottom={y + ROW} />
      ))}
    </g>
  );
}

/**
 * The map of a move's timeline to scale: its parts, its openings, the busy time of its slot, and every press
 * that came meanwhile.
 */
export function TimelineMap({ kit, move, index }: { kit: Kit; move: Move; index: number }) {
  const hatchId = useId();
  const now = useTakes();
  if (!now || !move.frames) return null;
  const frames = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const parts = [
    frames(move.frames.startup),
    frames(move.frames.active),
    frames(move.frames.recovery),
  ] as const;
  const total = parts[0] + parts[1] + parts[2];
  const tracks = tracksOf(kit, move, index);
  const upTo = Math.max(12, Math.ceil(Math.max(total, ...tracks.map(track => track.to)) * 1.15) + 2);
  const scale = createScale(0, upTo);
  const presses = now.reads.flatMap(({ of, program, trace, outcomes }) =>
    listMeanwhile(program, trace, outcomes.requests, index).map(press => ({ ...press, of })),
  );
  const count = (isThis: (press: Meanwhile) => boolean) => presses.filter(isThis).length;
  const lost = count(({ became }) => became === "lost");
  const remembered = count(({ became }) => became === "buffer" || became === "both");
  const waiting = count(({ became }) => became === "waiting");
  const performed = presses.length - lost - waiting;
  const dotsY = BAR_Y + BAR + 10;
  const tracksY = dotsY + DOT_ROWS * 12 + 4;
  const axisY = tracksY + tracks.length * ROW + 4;
  return (
    <MapFigure
      testId="timeline-map"
      label={`Timeline of ${move.name}: startup ${countWords(parts[0]!, "frame")}, active ${parts[1]}, recovery ${parts[2]}`}
      heightPx={axisY + 36}
      caption={
        <>
          Busy for <b className="text-ink">{total}f</b> ({formatMs(total, kit.rate)}).{" "}
          <CountCaption
            found={presses.length}
            takes={now.takes.length}
            one="request meanwhile"
            many="requests meanwhile"
            empty="No move of its slot was asked for meanwhile in these takes."
            kept={`${performed} performed${remembered > 0 ? `, ${remembered} by buffer` : ""}${waiting > 0 ? `, ${waiting} still waiting` : ""}`}
            lost={lost > 0 ? [`${lost} lost`] : []}
          />
        </>
      }
      drawing={
        <>
          <Hatch id={hatchId} colour="line" />
          <Parts move={move} index={index} parts={parts} scale={scale} hatchId={hatchId} />
          <Dots
            dots={presses.map(press => ({
              x: scale.x(Math.min(press.at, upTo) + 0.5),
              look: LOOKS[press.became],
              place: press,
            }))}
            area={{ top: dotsY + 6, pitchPx: 12, rows: DOT_ROWS }}
          />
          {tracks.map((track, k) => (
            <TrackLine key={track.words} track={track} y={tracksY + k * ROW} scale={scale} />
          ))}
          <TimeAxis scale={scale} y={axisY} rateHz={kit.rate} />
        </>
      }
    />
  );
}
