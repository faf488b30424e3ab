import type { Step } from "../../kit/schema";
import { atLeast, atMost, control, enumerate, words, type SentencePart } from "../../kit/sentence";
import { describeCancel, type DescribeKind } from "../describeParts";

const DIRECTIONS = [
  "down-left",
  "down",
  "down-right",
  "left",
  "centre",
  "right",
  "up-left",
  "up",
  "up-right",
];

function describeStep(step: Step, k: number): SentencePart[] {
  const path = ["steps", k] as const;
  if ("press" in step) return [control(step.press, [...path, "press"], `step ${k + 1}`)];
  if ("release" in step)
    return [words("letting go "), control(step.release, [...path, "release"], `step ${k + 1}`)];
  if ("hold" in step) {
    return [
      control(step.hold, [...path, "hold"], `step ${k + 1}`),
      words(" held "),
      atLeast(step.for, [...path, "for"], `step ${k + 1} held`),
    ];
  }
  if ("together" in step) {
    const names = step.together.map((id, c) => control(id, [...path, "together", c], `step ${k + 1}`));
    return [
      ...enumerate(names, "with"),
      words(" within "),
      atMost(step.within, [...path, "within"], `step ${k + 1} within`),
    ];
  }
  const direction = words(DIRECTIONS[Number(step.dir.at(-1)) - 1] ?? step.dir);
  if (step.for === undefined) return [direction];
  return [direction, words(" held "), atLeast(step.for, [...path, "for"], `step ${k + 1} held`)];
}

export const describeSequence: DescribeKind<"sequence"> = pattern => [
  words(" when "),
  ...pattern.steps.flatMap((step, k) =>
    k === 0 ? describeStep(step, k) : [words(", then "), ...describeStep(step, k)],
  ),
  words(" follow each other within "),
  atMost(pattern.gap, ["gap"], "longest gap between steps", 1),
  ...(pattern.total === undefined
    ? []
    : [words(", all within "), atMost(pattern.total, ["total"], "time for the whole", 1)]),
  words(pattern.others === "break" ? "; any other press breaks it" : ""),
  ...describeCancel(pattern.cancel),
];
