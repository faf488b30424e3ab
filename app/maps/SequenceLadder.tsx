import {
  describePattern,
  formatSentence,
  largest,
  parseFrames,
  stepWords,
  type Kit,
  type PatternOf,
} from "#core";
import { Dots } from "./Dots";
import { CountCaption, MapFigure } from "./MapFigure";
import { PullEdge } from "./PullEdge";
import { createScale, MAP_WIDTH } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { listTries } from "./tries";
import { useTakes } from "./useTakes";
import { useDocument } from "../document/context";
import { cutLetters } from "../ui/fitText";

const RUNG = 34;
const LEFT = 172;
const RIGHT = 92;

function nameOf(kit: Kit, id: string): string {
  return kit.controls.find(control => control.id === id)?.name ?? id;
}

/** Describes the limits of the whole sequence: its total time, and what breaks it. */
function limitsOf(kit: Kit, pattern: PatternOf<"sequence">): string {
  const total = pattern.total === undefined ? "no limit for the whole" : `the whole within ${pattern.total}`;
  const breaks = pattern.others === "break" ? "any other press breaks it" : "other presses are ignored";
  const cancels = pattern.cancel?.length
    ? `; ${pattern.cancel.map(id => nameOf(kit, id)).join(" or ")} cancels it`
    : "";
  return `Each step within its gap of the one before, ${total}; ${breaks}${cancels}.`;
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
  const tries = listTries(
    now.program,
    now.takes.map(({ trace }) => trace),
    index,
  );
  const common = framesOf(pattern.gap);
  const own = pattern.steps.map(step => (step.gap === undefined ? common : framesOf(step.gap)));
  const upTo = Math.max(20, Math.ceil(largest(own, 0) * 1.35) + 3);
  const scale = createScale(0, upTo, MAP_WIDTH - LEFT - RIGHT);
  const placed = { ...scale, x: (frame: number) => LEFT + scale.x(frame) };
  const height = pattern.steps.length * RUNG;
  const total = tries.fired + Object.values(tries.broken).reduce((sum, n) => sum + n, 0);
  const fell = Object.entries(tries.broken).map(([reason, n]) => `${n} ${reason}`);
  return (
    <MapFigure
      testId="sequence-ladder"
      label={formatSentence(describePattern(pattern, kit), (_, id) => nameOf(kit, id))}
      heightPx={height + 40}
      caption={
        <CountCaption
          found={total}
          takes={now.takes.length}
          one="try"
          many="tries"
          empty="No try yet in these takes: play, and how far each one got appears beside the rungs."
          kept={`${tries.fired} came through`}
          lost={fell.length > 0 ? [fell.join(", ")] : []}
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
          {pattern.steps.map((step, k) => {
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
                {k > 0 && (
                  <>
                    <rect
                      x={LEFT}
                      y={y - 11}
                      width={scale.x(own[k]! + 1)}
                      height="22"
                      className="fill-fern"
                    />
                    <Dots
                      dots={[
                        ...(tries.gaps[k - 1] ?? []).map((frames, d) => ({
                          x: placed.x(frames + 0.5),
                          y: y - 5 + (d % 2) * 10,
                          look: "whole" as const,
                        })),
                        ...(tries.missed[k - 1] ?? []).map((frames, d) => ({
                          x: placed.x(Math.min(frames, upTo) + 0.5),
                          y: y - 5 + (d % 2) * 10,
                          look: "lost" as const,
                        })),
                      ]}
                    />
                    <PullEdge
                      target={{
                        // Dragging sets this step's own gap; the sentence has the gap of all others.
                        path: ["patterns", index, "steps", k, "gap"],
                        rounding: "atMost",
                        least: 1,
                        label: `gap of step ${k + 1}`,
                      }}
                      scale={placed}
                      at={own[k]! + 1}
                      frames={own[k]!}
                      top={y - 14}
                      bottom={y + 14}
                    />
                  </>
                )}
                <text x={MAP_WIDTH - RIGHT + 12} y={y + 4} className="fill-soft text-xs">
                  {total === 0 ? "" : `${tries.reached[k]} of ${total}`}
                </text>
              </g>
            );
          })}
          <TimeAxis scale={placed} y={height + 2} rateHz={kit.rate} />
        </>
      }
    >
      <p className="text-sm text-soft">{limitsOf(kit, pattern)}</p>
    </MapFigure>
  );
}
