import { useId, useState } from "react";
import {
  countWords,
  formatGrown,
  formatMs,
  largest,
  parseFrames,
  ratioAt,
  TICKS,
  traitsOf,
  cutLetters,
  type Kit,
  type Pattern,
  type Program,
} from "#core";
import { Closings } from "./Closings";
import { ChargeCurve, curvedGrowth, CURVE_BAND } from "./ChargeCurve";
import { Distribution } from "./Distribution";
import { Dots } from "./Dots";
import type { DotLook } from "./pileDots";
import { Hatch } from "./Hatch";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { listLengthDots, listStretches, patternsOfControl, type LengthDot } from "./pressLengths";
import { createScale, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes, type TakesNow } from "./useTakes";
import { useDocument } from "../document/workbenchContext";

const STRIP_Y = CURVE_BAND;
const STRIP_HEIGHT = 58;
const DOT_AREA = { top: STRIP_Y + 11, pitchPx: 12, rows: 4 };
const PX_PER_LETTER = 6.4;
const BOTTOM = STRIP_Y + STRIP_HEIGHT;
/** The upper edge of a map without a charge curve. */
const TOP_WITHOUT_CURVE = 46;
/** The range of press lengths shown, in frames. */
const MIN_SHOWN = 24;
const MAX_SHOWN = 600;
/** Longer recorded presses do not stretch the map. */
const MAX_STRETCHING = 120;

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

/** Of more rules on one control only so many have limits to drag, and are named; more would cover each other. */
const MAX_DRAGGED = 16;
const MAX_NAMES = 3;

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

/** Formats what a press length charges each curved pattern of the control to. */
function readOut(layout: LengthLayout, program: Program, frames: number): string {
  return layout.own
    .flatMap(({ pattern, i }) => {
      const growth = curvedGrowth(program.patterns[i]);
      if (!growth) return [];
      const ratio = ratioAt(growth, frames * TICKS).toFixed(2);
      return [`${pattern.name} ${formatGrown(growth, frames * TICKS)}, ratio ${ratio}`];
    })
    .join("; ");
}

/** Lays out the press lengths of a control: its stretches, its edges, and the presses of the takes. */
function layoutLengths(kit: Kit, now: TakesNow, controlId: string, openId: string, control: number) {
  const own = kit.patterns
    .map((pattern, i) => ({ pattern, i }))
    .filter(({ pattern }) => "control" in pattern && pattern.control === controlId && !pattern.off);
  const dragged = [...own.filter(({ pattern }) => pattern.id === openId), ...own].slice(0, MAX_DRAGGED);
  const edges = [...new Set(dragged)].flatMap(({ pattern, i }) => edgesOf(kit, pattern, i));
  const patterns = new Set(patternsOfControl(now.program, control));
  const presses = now.reads.flatMap(read =>
    listLengthDots(read, control, patterns).map(dot => ({ ...dot, of: read.of })),
  );
  const limits = [
    ...listStretches(now.program, control, MAX_SHOWN).map(stretch => stretch.from),
    ...edges.map(edge => edge.at),
  ];
  const longest = largest(
    presses.map(({ length }) => Math.min(length, MAX_STRETCHING) + 2),
    0,
  );
  const upTo = Math.min(MAX_SHOWN, Math.max(MIN_SHOWN, Math.ceil(largest(limits, 0) * 1.2) + 4, longest));
  const names = new Map(kit.patterns.map(({ id, name }) => [id, name]));
  const namesOf = (ids: readonly string[]) => [
    ...ids.slice(0, MAX_NAMES).map(id => names.get(id) ?? id),
    ...(ids.length > MAX_NAMES ? [`${ids.length - MAX_NAMES} more`] : []),
  ];
  return {
    own,
    edges,
    presses,
    upTo,
    scale: createScale(0, upTo),
    hasCurve: own.some(({ i }) => curvedGrowth(now.program.patterns[i])),
    stretches: listStretches(now.program, control, upTo).map(({ from, to, patternIds }) => ({
      from,
      to,
      rules: patternIds.length,
      words: namesOf(patternIds).join(" and "),
    })),
  };
}

type LengthLayout = ReturnType<typeof layoutLengths>;

/** One stretch of press lengths with the same result. */
function LengthStretch({
  stretch: { from, to, rules, words },
  scale,
  hatchId,
}: {
  stretch: LengthLayout["stretches"][number];
  scale: MapScale;
  hatchId: string;
}) {
  const widthPx = scale.x(to + 1) - scale.x(from);
  const isDead = rules === 0;
  const label = isDead ? `${from}–${to}f${widthPx > SILENT_PX ? " silent" : ""}` : words;
  return (
    <g>
      <Stretch
        scale={scale}
        from={from}
        to={to + 1}
        y={STRIP_Y}
        height={STRIP_HEIGHT}
        look={isDead ? "" : rules > 1 ? "fill-lichen" : "fill-fern"}
        fill={isDead ? `url(#${hatchId})` : undefined}
      />
      <text
        x={scale.x(from) + 8}
        y={STRIP_Y - 8}
        className={`text-xs ${isDead ? "fill-foxglove" : "fill-ink"}`}
      >
        {cutToWidth(label, widthPx)}
      </text>
    </g>
  );
}

/** The strip of press lengths: stretches, charge curves, presses as dots, draggable limits, the axis. */
function LengthStrip({ layout, kit, program }: { layout: LengthLayout; kit: Kit; program: Program }) {
  const hatchId = useId();
  const { own, edges, presses, upTo, scale, stretches } = layout;
  return (
    <>
      <Hatch id={hatchId} colour="line" />
      {stretches.map(stretch => (
        <LengthStretch key={stretch.from} stretch={stretch} scale={scale} hatchId={hatchId} />
      ))}
      {own.slice(0, MAX_DRAGGED).map(({ pattern, i }) => (
        <ChargeCurve key={pattern.id} program={program} index={i} scale={scale} />
      ))}
      <Dots
        dots={presses.flatMap(press => {
          const { length, became } = press;
          return length > upTo ? [] : [{ x: scale.x(length + 0.5), look: LOOKS[became], place: press }];
        })}
        area={DOT_AREA}
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
          bottom={edge.target.rounding === "atMost" ? STRIP_Y + STRIP_HEIGHT / 2 : BOTTOM + 4}
        />
      ))}
      <TimeAxis scale={scale} y={BOTTOM + 4} rateHz={kit.rate} />
    </>
  );
}

/** The caption of the map: the result of the length under the pointer, or the counts of all presses. */
function LengthCaption({
  layout,
  probe,
  kit,
  now,
}: {
  layout: LengthLayout;
  probe: number | undefined;
  kit: Kit;
  now: TakesNow;
}) {
  const { presses, stretches, hasCurve } = layout;
  if (probe !== undefined) {
    const words = stretches.find(({ from, to }) => from <= probe && probe <= to)?.words;
    return (
      <>
        <b className="font-mono text-ink">{probe}f</b> {formatMs(probe, kit.rate)}: {words || "nothing"}
        {hasCurve && `; ${readOut(layout, now.program, probe)}`}
      </>
    );
  }
  const countOf = (became: LengthDot["became"]) => presses.filter(press => press.became === became).length;
  const [silent, unheard] = [countOf("silent"), countOf("unheard")];
  return (
    <CountCaption
      found={presses.length}
      takes={now.takes.length}
      one="press"
      many="presses"
      empty="No presses recorded yet: play, and they appear here as dots."
      kept={`${countOf("answered")} answered`}
      lost={silent > 0 ? [`${silent} ended in nothing`] : []}
      rest={unheard > 0 ? ` · ${unheard} seen by none of these rules` : ""}
    />
  );
}

/**
 * The map of press lengths on a control: what each length ends in, to scale, with the real presses of all
 * takes as dots; its limits can be dragged, those of the open rule in any case.
 */
export function PressLengthMap({ controlId, openId }: { controlId: string; openId: string }) {
  const [probe, setProbe] = useState<number | undefined>();
  const kit = useDocument(state => state.kit);
  const now = useTakes();
  const control = now?.program.controls.findIndex(item => item.id === controlId) ?? -1;
  if (!kit || !now || control < 0) return null;
  const layout = layoutLengths(kit, now, controlId, openId, control);
  const { presses, stretches, upTo, hasCurve } = layout;
  const words = stretches.map(
    ({ from, to, words }) => `${from} to ${countWords(to, "frame")} ${words || "nothing"}`,
  );
  return (
    <MapFigure
      testId="press-length-map"
      label={`What each length of press ends in: ${words.join("; ")}`}
      topPx={hasCurve ? 0 : TOP_WITHOUT_CURVE}
      heightPx={BOTTOM + 36}
      caption={<LengthCaption layout={layout} probe={probe} kit={kit} now={now} />}
      drawing={<LengthStrip layout={layout} kit={kit} program={now.program} />}
      onPointerMove={event => {
        const box = event.currentTarget.getBoundingClientRect();
        const frame = Math.floor(((event.clientX - box.left) / box.width) * (upTo + 1));
        setProbe(Math.max(1, Math.min(upTo, frame)));
      }}
      onPointerLeave={() => setProbe(undefined)}
    >
      <Distribution
        words="How long presses were"
        label="Lengths of presses"
        values={presses.map(({ length }) => length)}
        upTo={upTo}
      />
      <Closings kit={kit} controlId={controlId} upTo={upTo} />
    </MapFigure>
  );
}
