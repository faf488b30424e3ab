import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { evaluateEasing, formatMs, parseEasing, parseFrames, writeAt, type PatternOf } from "#core";
import { dragKit } from "../document/dragKit";
import { ChoiceWord } from "../ui/ChoiceWord";
import { CurveChoices, PRESETS } from "./CurveChoices";
import { formatBezier, formatPoints, movePoint, readCurve } from "./curvePoints";
import { useDesk, useDocument } from "../document/context";

const SIZE = 190;
const PAD = 26;
const FULL = SIZE + 2 * PAD;
const SAMPLES = 64;

const x = (value: number) => PAD + value * SIZE;
const y = (value: number) => PAD + (1 - value) * SIZE;

function path(css: string): string {
  const parsed = parseEasing(css);
  if (!parsed.ok) return "";
  return Array.from({ length: SAMPLES + 1 }, (_, k) => {
    const at = k / SAMPLES;
    return `${k === 0 ? "M" : "L"}${x(at).toFixed(1)} ${y(evaluateEasing(parsed.value, at)).toFixed(1)}`;
  }).join("");
}

/** A handle or a point of the curve, moved by dragging or by keys. */
function Grip({
  label,
  at,
  onMove,
  onDelete,
}: {
  label: string;
  at: readonly [number, number];
  onMove: (x: number, y: number) => void;
  onDelete?: () => void;
}) {
  const { workbench } = useDesk();
  const onPointerDown = (event: PointerEvent<SVGCircleElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const grip = event.currentTarget;
    grip.focus();
    const box = grip.ownerSVGElement!.getBoundingClientRect();
    dragKit(workbench, event, moved => {
      const px = ((moved.clientX - box.left) / box.width) * FULL;
      const py = ((moved.clientY - box.top) / box.height) * FULL;
      onMove((px - PAD) / SIZE, 1 - (py - PAD) / SIZE);
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.shiftKey ? 0.1 : 0.01;
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, by],
      ArrowDown: [0, -by],
    };
    const step = steps[event.key];
    if (event.key === "Delete" && onDelete) onDelete();
    else if (step) onMove(at[0] + step[0], at[1] + step[1]);
    else return;
    event.preventDefault();
  };
  return (
    <circle
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={at[1]}
      aria-valuetext={`${at[0].toFixed(2)} across, ${at[1].toFixed(2)} up`}
      cx={x(at[0])}
      cy={y(at[1])}
      r="6.5"
      strokeWidth="2"
      className="cursor-move touch-none fill-leaf stroke-ink"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    />
  );
}

/** The output of the curve for one hold length. */
interface Probe {
  readonly ratio: number;
}

/**
 * The editor of a charge's curve: its handles or points, the straight line and another curve for comparison,
 * and a probe that shows the output of a hold.
 */
export function CurveEditor({ pattern, index }: { pattern: PatternOf<"charge">; index: number }) {
  const { workbench } = useDesk();
  const kit = useDocument(state => state.kit);
  const variants = useDocument(state => state.variants);
  const [probe, setProbe] = useState<Probe | undefined>();
  const [beside, setBeside] = useState("linear");
  if (!kit) return null;
  const css = pattern.curve ?? "linear";
  const parsed = parseEasing(css);
  if (!parsed.ok) return null;
  const easing = parsed.value;
  const set = (next: string) =>
    workbench.editKit(`curve of ${pattern.name}`, now => writeAt(now, ["patterns", index, "curve"], next));
  const curve = readCurve(easing);
  const besides = [
    ...PRESETS,
    ...variants.flatMap(variant => {
      const other = variant.kit.patterns.find(item => item.id === pattern.id);
      return other?.kind === "charge"
        ? [{ value: other.curve ?? "linear", label: `as in ${variant.name}` }]
        : [];
    }),
  ];
  const framesOf = (written: string | undefined) =>
    written === undefined ? 0 : (parseFrames(written, kit.rate, "atLeast") ?? 0);
  const from = framesOf(pattern.from);
  const full = framesOf(pattern.full);
  const [low, high] = pattern.output ?? [0, 1];
  const besideParsed = parseEasing(beside);
  const worth = (ratio: number, of = easing) => low + (high - low) * evaluateEasing(of, ratio);
  const round = (value: number) => Number(value.toFixed(2));
  const ratio = probe?.ratio ?? 0.5;
  const held = Math.round(from + (full - from) * ratio);
  const level = (pattern.levels ?? []).filter(item => framesOf(item.at) <= held).at(-1)?.name ?? "no level";
  return (
    <figure className="mt-5 flex flex-wrap gap-6" data-testid="curve-editor">
      <svg
        viewBox={`0 0 ${FULL} ${FULL}`}
        className="size-[242px] shrink-0"
        role="group"
        aria-label={`Curve of ${pattern.name}: ${css}`}
        onPointerMove={event => {
          const box = event.currentTarget.getBoundingClientRect();
          const ratio = (((event.clientX - box.left) / box.width) * FULL - PAD) / SIZE;
          setProbe({ ratio: Math.max(0, Math.min(1, ratio)) });
        }}
        onPointerLeave={() => setProbe(undefined)}
        onDoubleClick={event => {
          if (curve.kind !== "points") return;
          const box = event.currentTarget.getBoundingClientRect();
          const at = (((event.clientX - box.left) / box.width) * FULL - PAD) / SIZE;
          if (at > 0 && at < 1) set(formatPoints([...curve.points, [at, evaluateEasing(easing, at)]]));
        }}
      >
        <rect x={PAD} y={PAD} width={SIZE} height={SIZE} className="fill-leaf stroke-line" />
        <path d={path(beside)} fill="none" className="stroke-soft" strokeWidth="1.5" strokeDasharray="3 4" />
        {(pattern.levels ?? []).map((item, k) => {
          const at = full > from ? (framesOf(item.at) - from) / (full - from) : 0;
          return at >= 0 && at <= 1 ? (
            <g key={k} aria-hidden>
              <line
                x1={x(at)}
                x2={x(at)}
                y1={PAD}
                y2={PAD + SIZE}
                className="stroke-lichen-ink"
                strokeDasharray="2 4"
              />
              <text x={x(at)} y={PAD - 6} textAnchor="middle" className="fill-ink text-[11px]">
                {item.name}
              </text>
            </g>
          ) : null;
        })}
        <path d={path(css)} fill="none" className="stroke-moss" strokeWidth="3" />
        {curve.kind === "bezier" && (
          <>
            <line
              x1={x(0)}
              y1={y(0)}
              x2={x(curve.handles[0])}
              y2={y(curve.handles[1])}
              className="stroke-ink"
            />
            <line
              x1={x(1)}
              y1={y(1)}
              x2={x(curve.handles[2])}
              y2={y(curve.handles[3])}
              className="stroke-ink"
            />
            <Grip
              label="First handle of the curve"
              at={[curve.handles[0], curve.handles[1]]}
              onMove={(px, py) => set(formatBezier([px, py, curve.handles[2], curve.handles[3]]))}
            />
            <Grip
              label="Second handle of the curve"
              at={[curve.handles[2], curve.handles[3]]}
              onMove={(px, py) => set(formatBezier([curve.handles[0], curve.handles[1], px, py]))}
            />
          </>
        )}
        {curve.kind === "points" &&
          curve.points.map((point, k) => (
            <Grip
              key={k}
              label={`Point ${k + 1} of the curve`}
              at={point}
              onMove={(px, py) => set(formatPoints(movePoint(curve.points, k, px, py)))}
              {...(curve.points.length > 2
                ? { onDelete: () => set(formatPoints(curve.points.filter((_, other) => other !== k))) }
                : {})}
            />
          ))}
        {probe && (
          <g aria-hidden className="pointer-events-none">
            <line
              x1={x(probe.ratio)}
              x2={x(probe.ratio)}
              y1={PAD}
              y2={PAD + SIZE}
              className="stroke-dew"
              strokeWidth="1.5"
            />
            <circle
              cx={x(probe.ratio)}
              cy={y(evaluateEasing(easing, probe.ratio))}
              r="4"
              className="fill-dew"
            />
          </g>
        )}
        <text x={PAD} y={FULL - 8} className="fill-soft font-mono text-[11px]">
          {from}f
        </text>
        <text x={PAD + SIZE} y={FULL - 8} textAnchor="end" className="fill-soft font-mono text-[11px]">
          {full}f held
        </text>
        <text x={PAD - 4} y={PAD + 4} textAnchor="end" className="fill-soft font-mono text-[11px]">
          {round(high)}
        </text>
        <text x={PAD - 4} y={PAD + SIZE} textAnchor="end" className="fill-soft font-mono text-[11px]">
          {round(low)}
        </text>
      </svg>
      <div className="w-72 text-sm">
        <dl className="font-mono" data-testid="curve-probe">
          <Line name={probe ? "held" : "half the time"} value={`${held}f · ${formatMs(held, kit.rate)}`} />
          <Line name="ratio" value={ratio.toFixed(2)} />
          <Line name="curved" value={evaluateEasing(easing, ratio).toFixed(2)} />
          <Line name="worth" value={String(round(worth(ratio)))} />
          <Line
            name="beside"
            value={besideParsed.ok ? String(round(worth(ratio, besideParsed.value))) : ""}
          />
          <Line name="level" value={level} />
        </dl>
        <p className="mt-2">
          Beside it:{" "}
          <ChoiceWord label="curve beside it" value={beside} choices={besides} onChoose={setBeside} />
        </p>
        <CurveChoices css={css} easing={easing} onChoose={set} />
      </div>
    </figure>
  );
}

function Line({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex justify-between border-b border-dotted border-line">
      <dt className="text-soft">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}
