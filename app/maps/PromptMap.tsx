import { countWords, TICKS, type Kit, type Program, type Prompt } from "#core";
import { promptEase } from "#stage";
import { formatOffsets, listAnswers, type Answer } from "./answers";
import { Dots } from "./Dots";
import type { DotLook } from "./pileDots";
import { Distribution } from "./Distribution";
import { CountCaption, MapFigure, Stretch } from "./MapFigure";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { createScale, type MapScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";

const BAR_Y = 40;
const BAR = 40;
const DOT_AREA = { top: BAR_Y + BAR + 14, pitchPx: 11, rows: 5 };
const AXIS_Y = DOT_AREA.top + DOT_AREA.rows * DOT_AREA.pitchPx;
/** A narrower lead is not labelled. */
const MIN_LEAD_PX = 44;

function lookOf({ failed }: Answer): DotLook {
  if (failed === undefined) return "whole";
  return failed === "too-late" ? "lost" : "missed";
}

const FAIL_WORDS = {
  "too-late": "too late",
  "too-early": "too early",
  wrong: "by a wrong press",
  mode: "by a switch of mode",
} as const;

/** Counts the results of answers, best first: grades, then failures by reason. */
function countAnswers(answers: readonly Answer[], prompt: Prompt): { good: string[]; bad: string[] } {
  const good: string[] = [];
  const bad: string[] = [];
  (prompt.grades ?? []).forEach(({ name }, g) => {
    const count = answers.filter(({ grade }) => grade === g).length;
    if (count > 0) good.push(`${count} ${name}`);
  });
  const plain = answers.filter(({ grade, failed }) => grade < 0 && failed === undefined).length;
  if (plain > 0) good.push(`${plain} answered${prompt.grades?.length ? " outside the grades" : ""}`);
  for (const [why, words] of Object.entries(FAIL_WORDS)) {
    const count = answers.filter(({ failed }) => failed === why).length;
    if (count > 0) bad.push(`${count} failed ${words}`);
  }
  return { good, bad };
}

/** The times of a prompt, in frames from its showing. */
interface PromptTimes {
  readonly lead: number;
  readonly window: number;
  readonly target: number;
}

/** The bar of a prompt: its lead as an outline, its window, its grades around the target. */
function PromptBar({
  program,
  times: { lead, window, target },
  hasTarget,
  scale,
}: {
  program: Program["prompts"][number];
  times: PromptTimes;
  hasTarget: boolean;
  scale: MapScale;
}) {
  const grades = [...program.grades].reverse().map(({ name, earlyTicks, lateTicks }, g, { length }) => {
    const [early, late] = [earlyTicks / TICKS, lateTicks / TICKS];
    const from = Math.max(lead, lead + target - early);
    const to = Math.min(lead + window, lead + target + late + 1);
    const reach = early === late ? `±${early}f` : `−${early}f +${late}f`;
    return { name, reach, from, to, rank: length - 1 - g };
  });
  return (
    <>
      <rect
        x="1"
        y={BAR_Y + 6}
        width={Math.max(0, scale.x(lead) - 1)}
        height={BAR - 12}
        strokeWidth="2"
        className="fill-none stroke-lichen"
      />
      <Stretch scale={scale} from={lead} to={lead + window} y={BAR_Y} height={BAR} look="fill-lichen" />
      {grades.map(({ name, reach, from, to, rank }) => (
        <g key={name}>
          <Stretch
            scale={scale}
            from={from}
            to={to}
            y={BAR_Y}
            height={BAR}
            look={rank === 0 ? "fill-moss" : "fill-fern"}
          />
          <text x={scale.x(to) - 3} y={BAR_Y - 6 - rank * 13} textAnchor="end" className="fill-ink text-xs">
            {name} {reach}
          </text>
        </g>
      ))}
      {hasTarget && (
        <rect
          x={scale.x(lead + target + 0.5) - 1}
          y={BAR_Y - 4}
          width="2"
          height={BAR + 8}
          className="fill-dew"
        />
      )}
      <text x="6" y={BAR_Y + BAR / 2 + 4} className="fill-ink text-xs">
        {scale.x(lead) > MIN_LEAD_PX ? "shown" : ""}
      </text>
    </>
  );
}

/** The draggable ends of a prompt's times. */
function PromptEdges({
  prompt,
  index,
  times: { lead, window, target },
  scale,
}: {
  prompt: Prompt;
  index: number;
  times: PromptTimes;
  scale: MapScale;
}) {
  const edges = [
    { field: "lead", label: "shown before", at: lead, frames: lead },
    { field: "window", label: "window", at: lead + window, frames: window },
    ...(prompt.target === undefined
      ? []
      : [{ field: "target", label: "target", at: lead + target, frames: target }]),
  ];
  return edges.map(({ field, label, at, frames }) => {
    const edge: EdgeTarget = {
      path: ["prompts", index, field],
      rounding: "atMost",
      least: field === "window" ? 1 : 0,
      label: `${prompt.name}: ${label}`,
    };
    return (
      <PullEdge
        key={field}
        target={edge}
        scale={scale}
        at={at}
        frames={frames}
        top={BAR_Y - 4}
        bottom={BAR_Y + BAR + 4}
      />
    );
  });
}

/** The map of a prompt as one bar: shown, window, target and grades; every answer in the takes is a dot. */
export function PromptMap({ kit, prompt, index }: { kit: Kit; prompt: Prompt; index: number }) {
  const now = useTakes();
  const program = now?.program.prompts[index];
  if (!now || !program) return null;
  const times: PromptTimes = {
    lead: program.leadTicks / TICKS,
    window: program.windowTicks / TICKS,
    target: program.targetTicks / TICKS,
  };
  // A stage may stretch windows for its players; the ends then differ from the kit's numbers and cannot be
  // dragged.
  const ease = promptEase(kit, prompt.id);
  const answers = now.takes.flatMap(of =>
    listAnswers(now.program, of.trace, index).map(answer => ({ ...answer, of })),
  );
  const showing = now.reads.reduce((sum, { outcomes }) => sum + outcomes.counts.prompts[index]!.showing, 0);
  const { good, bad } = countAnswers(answers, prompt);
  const came = answers.filter(({ failed }) => failed === undefined).map(({ at }) => at);
  const offsets = formatOffsets(
    came.map(frame => frame - times.lead - times.target),
    kit.rate,
  );
  const scale = createScale(0, Math.ceil((times.lead + times.window) * 1.15) + 3);
  const hasTarget = prompt.target !== undefined || (prompt.grades?.length ?? 0) > 0;
  return (
    <MapFigure
      testId="prompt-map"
      label={`${prompt.name}: shown ${countWords(times.lead, "frame")} before its window of ${countWords(times.window, "frame")}`}
      heightPx={AXIS_Y + 40}
      caption={
        <CountCaption
          found={answers.length + showing}
          takes={now.takes.length}
          one="showing"
          many="showings"
          empty="Not shown in these takes yet: play, and each answer appears here."
          kept={good.join(", ") || "none answered"}
          lost={bad.length > 0 ? [bad.join(", ")] : []}
          rest={showing > 0 ? ` · ${showing} still showing` : ""}
        />
      }
      drawing={
        <>
          <PromptBar program={program} times={times} hasTarget={hasTarget} scale={scale} />
          <Dots
            dots={answers.map(answer => ({
              x: scale.x(Math.min(answer.at, scale.to) + 0.5),
              look: lookOf(answer),
              place: { of: answer.of, frame: answer.of.trace.frame[answer.note]!, note: answer.note },
            }))}
            area={DOT_AREA}
          />
          {ease === 1 && <PromptEdges prompt={prompt} index={index} times={times} scale={scale} />}
          <TimeAxis scale={scale} y={AXIS_Y} rateHz={kit.rate} />
        </>
      }
    >
      {hasTarget && offsets !== "" && <p className="text-sm text-soft">The answers came {offsets}.</p>}
      <Distribution
        words="When the answers came"
        label="Frames from a showing to its answer"
        values={came}
        upTo={times.lead + times.window}
      />
      {ease !== 1 && (
        <p className="text-sm text-soft">
          The ropes make its times {ease} times as long. Set that to 1 in Play to pull its ends here.
        </p>
      )}
    </MapFigure>
  );
}
