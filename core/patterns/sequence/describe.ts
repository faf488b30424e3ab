import type { Kit, Step } from "../../kit/schema";
import {
  atLeast,
  atMost,
  clause,
  control,
  nameList,
  optional,
  ref,
  swap,
  words,
  type SentencePart,
  type SwapOption,
} from "../../kit/sentence";
import {
  describeCancel,
  freeControl,
  offerCancel,
  offerIf,
  type DescribeKind,
  type OfferKind,
} from "../describeParts";

/** Returns the controls a step names; a direction names none. */
function controlsOf(step: Step): readonly string[] {
  if ("press" in step) return [step.press];
  if ("release" in step) return [step.release];
  if ("hold" in step) return [step.hold];
  return "together" in step ? step.together : [];
}

function formOf(step: Step): string {
  if ("press" in step) return "press";
  if ("release" in step) return "release";
  if ("hold" in step) return "hold";
  return "together" in step ? "together" : "dir";
}

/** Returns the step in each possible form, with its timing. */
function stepForms(step: Step, kit: Kit): SwapOption[] {
  const own = {
    ...(step.gap === undefined ? {} : { gap: step.gap }),
    ...(step.after === undefined ? {} : { after: step.after }),
  };
  const first = controlsOf(step)[0] ?? kit.controls[0]?.id ?? "";
  const other = freeControl(kit, [first]) ?? first;
  const stick = kit.sticks?.[0]?.id;
  const forms: SwapOption[] = [
    { value: "press", label: "press", hint: "a button pressed", becomes: { press: first, ...own } },
    { value: "release", label: "let go", hint: "a button let go", becomes: { release: first, ...own } },
    {
      value: "hold",
      label: "hold",
      hint: "a button held so long",
      becomes: { hold: first, for: "12f", ...own },
    },
    {
      value: "together",
      label: "press together",
      hint: "buttons pressed as one",
      becomes: { together: [first, other], within: "3f", ...own },
    },
  ];
  const face: SwapOption = {
    value: "dir",
    label: "turn",
    hint: "a stick turned that way",
    becomes: { dir: `${stick}:6`, ...own },
  };
  return stick === undefined ? forms : [...forms, face];
}

function describeStep(step: Step, k: number, kit: Kit): SentencePart[] {
  const path = ["steps", k] as const;
  const label = `step ${k + 1}`;
  const form = swap(formOf(step), stepForms(step, kit), path, `kind of ${label}`);
  const timing = [
    ...optional(step.gap, [...path, "gap"], gap => [
      words(" within "),
      atMost(gap, [...path, "gap"], `gap before ${label}`, 1),
    ]),
    ...optional(step.after, [...path, "after"], after => [
      words(" not before "),
      atLeast(after, [...path, "after"], `least gap before ${label}`),
    ]),
  ];
  if ("press" in step) return [form, words(" "), control(step.press, [...path, "press"], label), ...timing];
  if ("release" in step)
    return [form, words(" "), control(step.release, [...path, "release"], label), ...timing];
  if ("hold" in step) {
    return [
      form,
      words(" "),
      control(step.hold, [...path, "hold"], label),
      words(" for "),
      atLeast(step.for, [...path, "for"], `${label} held`),
      ...timing,
    ];
  }
  if ("together" in step) {
    return [
      form,
      words(" "),
      ...nameList("control", step.together, [...path, "together"], label, "with", 2),
      words(" within "),
      atMost(step.within, [...path, "within"], `${label} within`),
      ...timing,
    ];
  }
  return [
    form,
    words(" "),
    ref("direction", step.dir, [...path, "dir"], label),
    ...optional(step.for, [...path, "for"], held => [
      words(" for "),
      atLeast(held, [...path, "for"], `${label} held`),
    ]),
    ...timing,
  ];
}

export const describeSequence: DescribeKind<"sequence"> = (pattern, kit) => [
  words(" on "),
  ...pattern.steps.flatMap((step, k) => {
    const parts = k === 0 ? describeStep(step, k, kit) : [words(", then "), ...describeStep(step, k, kit)];
    return pattern.steps.length > 1 ? clause(["steps", k], parts) : parts;
  }),
  words(": each within "),
  atMost(pattern.gap, ["gap"], "longest gap between steps", 1),
  words(" of the one before"),
  ...optional(pattern.total, ["total"], total => [
    words(", all within "),
    atMost(total, ["total"], "time for the whole", 1),
  ]),
  ...(pattern.others === "break" ? clause(["others"], [words("; any other press breaks it")]) : []),
  ...describeCancel(pattern.cancel),
];

type Sequence = Parameters<OfferKind<"sequence">>[0];

/** Returns a sequence with one of its steps replaced. */
function withStep(pattern: Sequence, k: number, step: Step): Sequence {
  return { ...pattern, steps: pattern.steps.map((other, s) => (s === k ? step : other)) };
}

export const offerSequence: OfferKind<"sequence"> = (pattern, kit) => {
  const used = pattern.steps.flatMap(controlsOf);
  const id = freeControl(kit, used);
  return [
    ...offerIf(id !== undefined, "… then one more step", () => ({
      ...pattern,
      steps: [...pattern.steps, { press: id! }],
    })),
    ...pattern.steps.flatMap((step, k) => [
      ...offerIf(k > 0 && step.gap === undefined, `… with a gap of its own for step ${k + 1}`, () =>
        withStep(pattern, k, { ...step, gap: pattern.gap }),
      ),
      ...offerIf(k > 0 && step.after === undefined, `… step ${k + 1} not too soon after the one before`, () =>
        withStep(pattern, k, { ...step, after: "2f" }),
      ),
    ]),
    ...offerIf(pattern.total === undefined, "… all within so much", () => ({ ...pattern, total: "60f" })),
    ...offerIf(pattern.others !== "break", "… broken by any other press", () => ({
      ...pattern,
      others: "break" as const,
    })),
    ...offerCancel(pattern, kit, used),
  ];
};
