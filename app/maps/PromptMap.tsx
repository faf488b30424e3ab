import { TICKS, type Kit, type Prompt } from "#core";
import { promptEase } from "#stage";
import { formatFound } from "./countWords";
import { listAnswers, type Answer } from "./answers";
import { Dots, type DotLook } from "./Dots";
import { PullEdge, type EdgeTarget } from "./PullEdge";
import { createScale } from "./scale";
import { TimeAxis } from "./TimeAxis";
import { useTakes } from "./useTakes";

const BAR_Y = 40;
const BAR = 40;
const DOT_ROWS = 2;

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
  if (plain > 0) good.push(`${plain} answered`);
  for (const [why, words] of Object.entries(FAIL_WORDS)) {
    const count = answers.filter(({ failed }) => failed === why).length;
    if (count > 0) bad.push(`${count} failed ${words}`);
  }
  return { good, bad };
}

/** The map of a prompt as one bar: shown, window, target and grades; every answer in the takes is a dot. */
export function PromptMap({ kit, prompt, index }: { kit: Kit; prompt: Prompt; index: number }) {
  const now = useTakes();
  const program = now?.program.prompts[index];
  if (!now || !program) return null;
  const lead = program.leadTicks / TICKS;
  const window = program.windowTicks / TICKS;
  const target = program.targetTicks / TICKS;
  // A stage may stretch windows for its players; the ends then differ from the kit's numbers and cannot be
  // dragged.
  const ease = promptEase(kit, prompt.id);
  const answers = now.takes.flatMap(of =>
    listAnswers(now.program, of.trace, index).map(answer => ({ ...answer, of })),
  );
  const { good, bad } = countAnswers(answers, prompt);
  const scale = createScale(0, Math.ceil((lead + window) * 1.15) + 3);
  const hasTarget = prompt.target !== undefined || (prompt.grades?.length ?? 0) > 0;
  const edge = (field: string, label: string, rounding: EdgeTarget["rounding"] = "atMost"): EdgeTarget => ({
    path: ["prompts", index, field],
    rounding,
    least: field === "window" ? 1 : 0,
    label: `${prompt.name}: ${label}`,
  });
  return (
    <figure className="mt-5" data-testid="prompt-map">
      <figcaption className="mb-1 text-sm text-soft">
        {answers.length === 0 ? (
          "Not shown to its end in these takes yet: play, and each answer appears here."
        ) : (
          <>
            {formatFound(answers.length, "showing", "showings", now.takes.length)}
            <b className="text-ink">{good.join(", ") || "none answered"}</b>
            {bad.length > 0 && <b className="text-foxglove"> · {bad.join(", ")}</b>}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${scale.widthPx} ${BAR_Y + BAR + 76}`}
        className="w-full max-w-[720px]"
        role="group"
        aria-label={`${prompt.name}: shown ${lead} frames before its window of ${window} frames`}
      >
        <rect
          x="1"
          y={BAR_Y + 6}
          width={Math.max(0, scale.x(lead) - 1)}
          height={BAR - 12}
          strokeWidth="2"
          className="fill-none stroke-lichen"
        />
        <rect x={scale.x(lead)} y={BAR_Y} width={scale.x(window)} height={BAR} className="fill-lichen" />
        {[...program.grades].reverse().map((grade, g) => {
          const within = grade.withinTicks / TICKS;
          const from = Math.max(lead, lead + target - within);
          const to = Math.min(lead + window, lead + target + within + 1);
          return (
            <g key={grade.name}>
              <rect
                x={scale.x(from)}
                y={BAR_Y}
                width={scale.x(to - from)}
                height={BAR}
                className={g === program.grades.length - 1 ? "fill-moss" : "fill-fern"}
              />
              <text
                x={scale.x(to) - 3}
                y={BAR_Y - 6 - (program.grades.length - 1 - g) * 13}
                textAnchor="end"
                className="fill-ink text-xs"
              >
                {grade.name} ±{within}f
              </text>
            </g>
          );
        })}
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
          {scale.x(lead) > 44 ? "shown" : ""}
        </text>
        <Dots
          dots={answers.map((answer, k) => ({
            x: scale.x(Math.min(answer.at, scale.to) + 0.5),
            y: BAR_Y + BAR + 14 + (k % DOT_ROWS) * 12,
            look: lookOf(answer),
            place: { of: answer.of, frame: answer.of.trace.frame[answer.note]!, note: answer.note },
          }))}
        />
        {ease === 1 && (
          <>
            <PullEdge
              target={edge("lead", "shown before")}
              scale={scale}
              at={lead}
              frames={lead}
              top={BAR_Y - 4}
              bottom={BAR_Y + BAR + 4}
            />
            <PullEdge
              target={edge("window", "window")}
              scale={scale}
              at={lead + window}
              frames={window}
              top={BAR_Y - 4}
              bottom={BAR_Y + BAR + 4}
            />
            {prompt.target !== undefined && (
              <PullEdge
                target={edge("target", "target")}
                scale={scale}
                at={lead + target}
                frames={target}
                top={BAR_Y - 4}
                bottom={BAR_Y + BAR + 4}
              />
            )}
          </>
        )}
        <TimeAxis scale={scale} y={BAR_Y + BAR + 36} rateHz={kit.rate} />
      </svg>
      {ease !== 1 && (
        <p className="text-sm text-soft">
          The ropes make its times {ease} times as long. Set that to 1 in Play to pull its ends here.
        </p>
      )}
    </figure>
  );
}
