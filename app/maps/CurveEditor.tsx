import { useState } from "react";
import {
  evaluateEasing,
  formatMs,
  parseEasing,
  parseFrames,
  writeAt,
  type Easing,
  type Kit,
  type PatternOf,
} from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import { CurveChoices, PRESETS } from "./CurveChoices";
import { CurveGrip } from "./CurveGrip";
import { formatBezier, formatPoints, movePoint, readCurve, type EditableCurve } from "./curvePoints";
import { curvePath, FULL, PAD, pointAt, SIZE, toX, toY } from "./curveScale";
import { useDocument, useWorkbench } from "../document/workbenchContext";

type Charge = PatternOf<"charge">;

/** The numbers of a charge that its curve is drawn with. Lengths in frames. */
interface ChargeNumbers {
  readonly from: number;
  readonly full: number;
  /** The output of an empty and of a full charge. */
  readonly low: number;
  readonly high: number;
  readonly levels: readonly { readonly name: string; readonly at: number }[];
}

function numbersOf(charge: Charge, rateHz: number): ChargeNumbers {
  const frames = (written = "0f") => parseFrames(written, rateHz, "atLeast") ?? 0;
  const [low, high] = charge.output ?? [0, 1];
  return {
    from: frames(charge.from),
    full: frames(charge.full),
    low,
    high,
    levels: (charge.levels ?? []).map(({ name, at }) => ({ name, at: frames(at) })),
  };
}

const round = (value: number) => Number(value.toFixed(2));

/** A vertical line through the drawing. */
function Upright({ at, look, dash, width }: { at: number; look: string; dash?: string; width?: string }) {
  return (
    <line
      x1={toX(at)}
      x2={toX(at)}
      y1={PAD}
      y2={PAD + SIZE}
      className={look}
      strokeDasharray={dash}
      strokeWidth={width}
    />
  );
}

/** The levels of a charge within its growth. */
function Levels({ numbers: { from, full, levels } }: { numbers: ChargeNumbers }) {
  return levels.map(({ name, at }, k) => {
    const ratio = full > from ? (at - from) / (full - from) : 0;
    if (ratio < 0 || ratio > 1) return null;
    return (
      <g key={k} aria-hidden>
        <Upright at={ratio} look="stroke-lichen-ink" dash="2 4" />
        <text x={toX(ratio)} y={PAD - 6} textAnchor="middle" className="fill-ink text-[11px]">
          {name}
        </text>
      </g>
    );
  });
}

/** The draggable handles or points of a curve. */
function Grips({ curve, onChange }: { curve: EditableCurve; onChange: (css: string) => void }) {
  if (curve.kind === "bezier") {
    const [x1, y1, x2, y2] = curve.handles;
    return (
      <>
        <line x1={toX(0)} y1={toY(0)} x2={toX(x1)} y2={toY(y1)} className="stroke-ink" />
        <line x1={toX(1)} y1={toY(1)} x2={toX(x2)} y2={toY(y2)} className="stroke-ink" />
        <CurveGrip
          label="First handle of the curve"
          at={[x1, y1]}
          onMove={(x, y) => onChange(formatBezier([x, y, x2, y2]))}
        />
        <CurveGrip
          label="Second handle of the curve"
          at={[x2, y2]}
          onMove={(x, y) => onChange(formatBezier([x1, y1, x, y]))}
        />
      </>
    );
  }
  if (curve.kind !== "points") return null;
  const { points } = curve;
  return points.map((point, k) => (
    <CurveGrip
      key={k}
      label={`Point ${k + 1} of the curve`}
      at={point}
      onMove={(x, y) => onChange(formatPoints(movePoint(points, k, x, y)))}
      {...(points.length > 2
        ? { onDelete: () => onChange(formatPoints(points.filter((_, other) => other !== k))) }
        : {})}
    />
  ));
}

/** The labels at the ends of both axes. */
function AxisEnds({ numbers: { from, full, low, high } }: { numbers: ChargeNumbers }) {
  return (
    <g className="fill-soft font-mono text-[11px]">
      <text x={PAD} y={FULL - 8}>
        {from}f
      </text>
      <text x={PAD + SIZE} y={FULL - 8} textAnchor="end">
        {full}f held
      </text>
      <text x={PAD - 4} y={PAD + 4} textAnchor="end">
        {round(high)}
      </text>
      <text x={PAD - 4} y={PAD + SIZE} textAnchor="end">
        {round(low)}
      </text>
    </g>
  );
}

/** The figures of one hold length: under the pointer, or half the time. */
function ProbeFigures({
  numbers: { from, full, low, high, levels },
  probe,
  easing,
  beside,
  rateHz,
}: {
  numbers: ChargeNumbers;
  probe: number | undefined;
  easing: Easing;
  beside: string;
  rateHz: number;
}) {
  const besideEasing = parseEasing(beside);
  const ratio = probe ?? 0.5;
  const held = Math.round(from + (full - from) * ratio);
  const worth = (of: Easing) => String(round(low + (high - low) * evaluateEasing(of, ratio)));
  const lines = [
    [probe === undefined ? "half the time" : "held", `${held}f · ${formatMs(held, rateHz)}`],
    ["ratio", ratio.toFixed(2)],
    ["curved", evaluateEasing(easing, ratio).toFixed(2)],
    ["worth", worth(easing)],
    ["beside", besideEasing.ok ? worth(besideEasing.value) : ""],
    ["level", levels.filter(({ at }) => at <= held).at(-1)?.name ?? "no level"],
  ] as const;
  return (
    <dl className="font-mono" data-testid="curve-probe">
      {lines.map(([name, value]) => (
        <div key={name} className="flex justify-between border-b border-dotted border-line">
          <dt className="text-soft">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** Returns the curves for comparison: the presets, and the curve of the same charge in each variant. */
function listBesides(charge: Charge, variants: readonly { readonly name: string; readonly kit: Kit }[]) {
  return [
    ...PRESETS,
    ...variants.flatMap(({ name, kit }) => {
      const other = kit.patterns.find(item => item.id === charge.id);
      return other?.kind === "charge" ? [{ value: other.curve ?? "linear", label: `as in ${name}` }] : [];
    }),
  ];
}

/**
 * The editor of a charge's curve: its handles or points, the straight line and another curve for comparison,
 * and a probe that shows the output of a hold.
 */
export function CurveEditor({ pattern, index }: { pattern: Charge; index: number }) {
  const workbench = useWorkbench();
  const rateHz = useDocument(state => state.kit?.rate);
  const variants = useDocument(state => state.variants);
  /** The ratio under the pointer. */
  const [probe, setProbe] = useState<number | undefined>();
  const [beside, setBeside] = useState("linear");
  const css = pattern.curve ?? "linear";
  const parsed = parseEasing(css);
  if (rateHz === undefined || !parsed.ok) return null;
  const easing = parsed.value;
  const numbers = numbersOf(pattern, rateHz);
  const curve = readCurve(easing);
  const set = (next: string) =>
    workbench.editKit(`curve of ${pattern.name}`, now => writeAt(now, ["patterns", index, "curve"], next));
  return (
    <figure className="mt-5 flex flex-wrap gap-6" data-testid="curve-editor">
      <svg
        viewBox={`0 0 ${FULL} ${FULL}`}
        className="size-[242px] shrink-0"
        role="group"
        aria-label={`Curve of ${pattern.name}: ${css}`}
        onPointerMove={event => {
          const [ratio] = pointAt(event, event.currentTarget.getBoundingClientRect());
          setProbe(Math.max(0, Math.min(1, ratio)));
        }}
        onPointerLeave={() => setProbe(undefined)}
        onDoubleClick={event => {
          if (curve.kind !== "points") return;
          const [at] = pointAt(event, event.currentTarget.getBoundingClientRect());
          if (at > 0 && at < 1) set(formatPoints([...curve.points, [at, evaluateEasing(easing, at)]]));
        }}
      >
        <rect x={PAD} y={PAD} width={SIZE} height={SIZE} className="fill-leaf stroke-line" />
        <path
          d={curvePath(beside)}
          fill="none"
          className="stroke-soft"
          strokeWidth="1.5"
          strokeDasharray="3 4"
        />
        <Levels numbers={numbers} />
        <path d={curvePath(css)} fill="none" className="stroke-moss" strokeWidth="3" />
        <Grips curve={curve} onChange={set} />
        {probe !== undefined && (
          <g aria-hidden className="pointer-events-none">
            <Upright at={probe} look="stroke-dew" width="1.5" />
            <circle cx={toX(probe)} cy={toY(evaluateEasing(easing, probe))} r="4" className="fill-dew" />
          </g>
        )}
        <AxisEnds numbers={numbers} />
      </svg>
      <div className="w-72 text-sm">
        <ProbeFigures numbers={numbers} probe={probe} easing={easing} beside={beside} rateHz={rateHz} />
        <p className="mt-2">
          Beside it:{" "}
          <ChoiceWord
            label="curve beside it"
            value={beside}
            choices={listBesides(pattern, variants)}
            onChoose={setBeside}
          />
        </p>
        <CurveChoices css={css} easing={easing} onChoose={set} />
      </div>
    </figure>
  );
}
