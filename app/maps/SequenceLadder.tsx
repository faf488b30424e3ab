import {
  describePattern,
  formatSentence,
  largest,
  nameIn,
  nameOf,
  parseFrames,
  stepWords,
  cutLetters,
  type Kit,
  type PatternOf,
} from "#core";
import { Dots } from "./Dots";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge } from "./PullEdge";
import { createScale, MAP_WIDTH, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { listTries } from "./tries";
import { useTakes } from "./useTakes";
import { useDocument } from "../document/workbenchContext";

const RUNG = 34;
const LEFT = 172;
const RIGHT = 92;

/** Describes the limits of the whole sequence: its total time, and what breaks it. */
function limitsOf(kit: Kit, pattern: PatternOf<"sequence">): string {
  const total = pattern.total === undefined ? "no limit for the whole" : `the whole within ${pattern.total}`;
  const breaks = pattern.others === "break" ? "any other press breaks it" : "other presses are ignored";
  const cancels = pattern.cancel?.length
    ? `; ${pattern.cancel.map(id => nameOf(kit, "controls", id)).join(" or ")} cancels it`
    : "";
  return `Each step within its gap of the one before, ${total}; ${breaks}${cancels}.`;
}

type Tries = ReturnType<typeof listTries>;

/** The gap before a step to scale, the real gaps as dots, and its draggable end. */
function StepGap({
  index,
  step,
  gap,
  tries,
  scale,
  y,
}: {
  index: number;
  step: number;
  /** In frames. */
  gap: number;
  tries: Tries;
  scale: MapScale;
  y: number;
}) {
  const dotsOf = (gaps: readonly number[] = [], look: "whole" | "lost") =>
    gaps.map(frames => ({ x: scale.x(Math.min(frames, scale.to) + 0.5), look }));
  const dots = [...dotsOf(tries.gaps[step - 1], "whole"), ...dotsOf(tries.missed[step - 1], "lost")];
  return (
    <>
      <Stretch scale={scale} from={0} to={gap + 1} y={y - 11} height={22} look="fill-fern" />
      <Dots dots={dots} area={{ top: y - 5, pitchPx: 10, rows: 2 }} />
      <PullEdge
        target={{
          // Dragging sets this step's own gap; the sentence has the gap of all others.
          path: ["patterns", index, "steps", step, "gap"],
          rounding: "atMost",
          least: 1,
          label: `gap of step ${step + 1}`,
        }}
        scale={scale}
        at={gap + 1}
        frames={gap}
        top={y - 14}
        bottom={y + 14}
      />
    </>
  );
}

/** Returns the number of attempts. */
const countTries = ({ fired, broken }: Tries) => fired + Object.values(broken).reduce((sum, n) => sum + n, 0);

/** The steps as rungs, each with its gap and the number of attempts that reached it. */
function Rungs({
  kit,
  pattern,
  index,
  gaps,
  tries,
  scale,
}: {
  kit: Kit;
  pattern: PatternOf<"sequence">;
  index: number;
  /** The gap before each step, in frames. */
  gaps: readonly number[];
  tries: Tries;
  scale: MapScale;
}) {
  const total = countTries(tries);
  return pattern.steps.map((step, k) => {
    const y = k * RUNG + RUNG / 2;
    const isLast = k === pattern.steps.length - 1;
    return (
      <g key={k}>
        <ellipse
          cx="14"
          cy={y}
          rx="10"
          ry="8"
          strokeWidth="2"
          className={isLast ? "fill-moss stroke-moss" : "fill-leaf stroke-moss"}
        />
        <text x="34" y={y + 4} className="fill-ink text-sm font-semibold">
          {cutLetters(stepWords(step, kit), 18)}
        </text>
        {k > 0 && <StepGap index={index} step={k} gap={gaps[k]!} tries={tries} scale={scale} y={y} />}
        <text x={MAP_WIDTH - RIGHT + 12} y={y + 4} className="fill-soft text-xs">
          {total === 0 ? "" : `${tries.reached[k]} of ${total}`}
        </text>
      </g>
    );
  });
}

/**
 * The steps of a sequence as rungs, each with its gap to scale, real gaps as dots, and the number of attempts
 * that reached it.
 */
export function SequenceLadder({ pattern, index }: { pattern: PatternOf<"sequence">; index: number }) {
  const kit = useDocument(state => state.kit);
  const now = useTakes();
  if (!kit || !now) return null;
  const framesOf = (written: string) => parseFrames(written, kit.rate, "atMost") ?? 0;
  const traces = now.takes.map(({ trace }) => trace);
  const tries = listTries(now.program, traces, index);
  const gaps = pattern.steps.map(step => framesOf(step.gap ?? pattern.gap));
  const upTo = Math.max(20, Math.ceil(largest(gaps, 0) * 1.35) + 3);
  const inner = createScale(0, upTo, MAP_WIDTH - LEFT - RIGHT);
  const scale = { ...inner, x: (frame: number) => LEFT + inner.x(frame) };
  const height = pattern.steps.length * RUNG;
  const broken = Object.entries(tries.broken).map(([reason, n]) => `${n} ${reason}`);
  return (
    <MapFigure
      testId="sequence-ladder"
      label={formatSentence(describePattern(pattern, kit), nameIn(kit))}
      heightPx={height + 40}
      caption={
        <CountCaption
          found={countTries(tries)}
          takes={now.takes.length}
          one="try"
          many="tries"
          empty="No try yet in these takes: play, and how far each one got appears beside the rungs."
          kept={`${tries.fired} came through`}
          lost={broken.length > 0 ? [broken.join(", ")] : []}
        />
      }
      drawing={
        <>
          <line
            x1="14"
            x2="14"
            y1={RUNG / 2}
            y2={height - RUNG / 2}
            className="stroke-line"
            strokeWidth="2"
          />
          <Rungs kit={kit} pattern={pattern} index={index} gaps={gaps} tries={tries} scale={scale} />
          <TimeAxis scale={scale} y={height + 2} rateHz={kit.rate} />
        </>
      }
    >
      <p className="text-sm text-soft">{limitsOf(kit, pattern)}</p>
    </MapFigure>
  );
}
