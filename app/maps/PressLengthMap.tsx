import { useId, useState } from "react";
import {
  evaluateEasing,
  formatGrown,
  formatMs,
  largest,
  parseFrames,
  TICKS,
  traitsOf,
  type Kit,
  type Pattern,
  type Program,
} from "#core";
import { Closings } from "./Closings";
import { formatFound } from "./countWords";
import { Distribution } from "./Distribution";
import { Dots, type DotLook } from "./Dots";
import { Hatch } from "./Hatch";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { listLengthDots, listStretches, type LengthDot } from "./pressLengths";
import { createScale, MAP_WIDTH, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";
import { useDocument } from "../document/context";
import { cutLetters } from "../ui/fitText";

const STRIP_Y = 74;
const STRIP_HEIGHT = 58;
const DOT_ROWS = 4;
const PX_PER_LETTER = 6.4;
const CURVE_TOP = 6;
const CURVE_HEIGHT = 46;

const LOOKS: Readonly<Record<LengthDot["became"], DotLook>> = {
  answered: "whole",
  silent: "missed",
  unheard: "saved",
};

/** Cuts a label to the width of its stretch; empty if not even a word fits. */
function cutToWidth(label: string, widthPx: number): string {
  const letters = Math.floor((widthPx - 8) / PX_PER_LETTER);
  return letters < Math.min(4, label.length) ? "" : cutLetters(label, letters);
}

interface EdgeOnMap {
  readonly target: EdgeTarget;
  readonly at: number;
  readonly frames: number;
}

/** A narrower dead stretch is labelled only with its frames. */
const SILENT_PX = 90;

/** Returns the draggable limits of a pattern on the map, with their positions. */
function edgesOf(kit: Kit, pattern: Pattern, i: number): EdgeOnMap[] {
  const edges = traitsOf(pattern.kind).edges?.(pattern) ?? [];
  return edges.map(({ path, written, rounding, label }) => {
    const frames = parseFrames(written, kit.rate, rounding) ?? 0;
    const target = {
      path: ["patterns", i, ...path],
      rounding,
      least: 1,
      label: `${pattern.name}: ${label}`,
    };
    return { target, frames, at: rounding === "atMost" ? frames + 1 : frames };
  });
}

/**
 * The growth of a charge over the strip: its curve, the straight line for comparison, and its levels as
 * steps.
 */
function ChargeCurve({ program, index, scale }: { program: Program; index: number; scale: MapScale }) {
  const pattern = program.patterns[index];
  if (pattern?.kind !== "charge") return null;
  const from = pattern.fromTicks / TICKS;
  const full = pattern.fullTicks / TICKS;
  const y = (value: number) => CURVE_TOP + CURVE_HEIGHT * (1 - Math.max(-0.1, Math.min(1.1, value)));
  const points = Array.from({ length: 49 }, (_, k) => {
    const ratio = k / 48;
    return `${scale.x(from + (full - from) * ratio).toFixed(1)},${y(evaluateEasing(pattern.easing, ratio)).toFixed(1)}`;
  });
  return (
    <g aria-hidden>
      <line
        x1={scale.x(from)}
        y1={y(0)}
        x2={scale.x(full)}
        y2={y(1)}
        className="stroke-line"
        strokeDasharray="3 4"
      />
      <polyline
        points={`${points.join(" ")} ${scale.x(scale.to + 1)},${y(1)}`}
        fill="none"
        strokeWidth="2.5"
        className="stroke-moss"
      />
      {pattern.levels.map(level => (
        <g key={level.name}>
          <line
            x1={scale.x(level.atTicks / TICKS)}
            x2={scale.x(level.atTicks / TICKS)}
            y1={CURVE_TOP}
            y2={STRIP_Y}
            className="stroke-lichen-ink"
            strokeDasharray="2 3"
          />
          <text x={scale.x(level.atTicks / TICKS) + 4} y={CURVE_TOP + 8} className="fill-ink text-xs">
            {level.name}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Formats the results of a press length for each pattern of the control. */
function readOut(kit: Kit, program: Program, controlId: string, frames: number): string {
  const parts = kit.patterns.flatMap((pattern, i) => {
    if (pattern.kind !== "charge" || pattern.control !== controlId || pattern.off) return [];
    const growth = traitsOf(pattern.kind).growth?.(program.patterns[i]!);
    if (!growth) return [];
    const span = growth.fullTicks - growth.fromTicks;
    const ratio = Math.max(0, Math.min(1, (frames * TICKS - growth.fromTicks) / span));
    return [`${pattern.name} ${formatGrown(growth, frames * TICKS)}, ratio ${ratio.toFixed(2)}`];
  });
  return parts.join("; ");
}

/**
 * The map of press lengths on a control: what each length ends in, to scale, with the real presses of all
 * takes as dots; its limits can be dragged.
 */
export function PressLengthMap({ controlId }: { controlId: string }) {
  const hatchId = useId();
  const [probe, setProbe] = useState<number | undefined>();
  const kit = useDocument(state => state.kit);
  const now = useTakes();
  const program = now?.program;
  const control = program?.controls.findIndex(item => item.id === controlId) ?? -1;
  if (!kit || !program || control < 0) return null;
  const own = kit.patterns
    .map((pattern, i) => ({ pattern, i }))
    .filter(({ pattern }) => "control" in pattern && pattern.control === controlId && !pattern.off);
  const edges = own.flatMap(({ pattern, i }) => edgesOf(kit, pattern, i));
  const hasCharge = own.some(({ pattern }) => pattern.kind === "charge");
  const presses = now.reads.flatMap(read =>
    listLengthDots(read, control).map(({ press, ...dot }) => ({ ...dot, press, of: read.of })),
  );
  const lengths = presses.map(({ length }) => length);
  const countOf = (became: LengthDot["became"]) => presses.filter(press => press.became === became).length;
  const limits = [
    ...listStretches(program, control, 600).map(stretch => stretch.from),
    ...edges.map(edge => edge.at),
  ];
  const longest = largest(
    lengths.map(length => Math.min(length, 120) + 2),
    0,
  );
  const upTo = Math.min(600, Math.max(24, Math.ceil(largest(limits, 0) * 1.2) + 4, longest));
  const stretches = listStretches(program, control, upTo);
  const scale = createScale(0, upTo);
  const nameOf = (id: string) => kit.patterns.find(pattern => pattern.id === id)?.name ?? id;
  const inStretch = (length: number) => stretches.find(s => s.from <= length && length <= s.to);
  const [answered, silent, unheard] = [countOf("answered"), countOf("silent"), countOf("unheard")];
  const top = hasCharge ? 0 : 46;
  const bottom = STRIP_Y + STRIP_HEIGHT;
  return (
    <figure className="mt-5" data-testid="press-length-map">
      <figcaption className="mb-1 text-sm text-soft">
        {probe !== undefined ? (
          <>
            <b className="font-mono text-ink">{probe}f</b> {formatMs(probe, kit.rate)}:{" "}
            {inStretch(probe)?.patternIds.map(nameOf).join(" and ") || "nothing"}
            {hasCharge && `; ${readOut(kit, program, controlId, probe)}`}
          </>
        ) : lengths.length === 0 ? (
          "No presses recorded yet: play, and they appear here as dots."
        ) : (
          <>
            {formatFound(lengths.length, "press", "presses", now.takes.length)}
            <b className="text-ink">{answered} answered</b>
            {silent > 0 && <b className="text-foxglove"> · {silent} ended in nothing</b>}
            {unheard > 0 && ` · ${unheard} heard by none of these rules`}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 ${top} ${MAP_WIDTH} ${bottom + 36 - top}`}
        className="w-full max-w-[720px]"
        role="group"
        aria-label={`What each length of press ends in: ${stretches.map(s => `${s.from} to ${s.to} frames ${s.patternIds.map(nameOf).join(" and ") || "nothing"}`).join("; ")}`}
        onPointerMove={event => {
          const box = event.currentTarget.getBoundingClientRect();
          const frame = Math.floor(((event.clientX - box.left) / box.width) * (upTo + 1));
          setProbe(Math.max(1, Math.min(upTo, frame)));
        }}
        onPointerLeave={() => setProbe(undefined)}
      >
        <Hatch id={hatchId} colour="line" />
        {stretches.map(stretch => {
          const x = scale.x(stretch.from);
          const width = scale.x(stretch.to + 1) - x;
          const isDead = stretch.patternIds.length === 0;
          const label = isDead
            ? `${stretch.from}–${stretch.to}f${width > SILENT_PX ? " silent" : ""}`
            : stretch.patternIds.map(nameOf).join(" and ");
          return (
            <g key={stretch.from}>
              <rect
                x={x}
                y={STRIP_Y}
                width={width}
                height={STRIP_HEIGHT}
                className={isDead ? "" : stretch.patternIds.length > 1 ? "fill-lichen" : "fill-fern"}
                fill={isDead ? `url(#${hatchId})` : undefined}
              />
              <text x={x + 8} y={STRIP_Y - 8} className={`text-xs ${isDead ? "fill-foxglove" : "fill-ink"}`}>
                {cutToWidth(label, width)}
              </text>
            </g>
          );
        })}
        {own.map(({ pattern, i }) => (
          <ChargeCurve key={pattern.id} program={program} index={i} scale={scale} />
        ))}
        <Dots
          dots={presses.flatMap((press, k) => {
            const { length, became } = press;
            const look = LOOKS[became];
            const y = STRIP_Y + 11 + (k % DOT_ROWS) * 12;
            return length > upTo ? [] : [{ x: scale.x(length + 0.5), y, look, place: press }];
          })}
        />
        {/* Where one rule ends another may begin: ends are dragged in the upper half, beginnings in the lower. */}
        {edges.map(edge => (
          <PullEdge
            key={edge.target.label}
            target={edge.target}
            scale={scale}
            at={edge.at}
            frames={edge.frames}
            top={edge.target.rounding === "atMost" ? STRIP_Y - 5 : STRIP_Y + STRIP_HEIGHT / 2}
            bottom={edge.target.rounding === "atMost" ? STRIP_Y + STRIP_HEIGHT / 2 : bottom + 4}
          />
        ))}
        <TimeAxis scale={scale} y={bottom + 4} rateHz={kit.rate} />
      </svg>
      <Distribution words="How long presses were" label="Lengths of presses" values={lengths} upTo={upTo} />
      <Closings kit={kit} controlId={controlId} upTo={upTo} />
    </figure>
  );
}
