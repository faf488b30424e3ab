import type { Grade, Kit, Pattern, Prompt } from "../kit/schema";
import {
  atLeast,
  atMost,
  choice,
  clause,
  count,
  gate,
  nameList,
  optional,
  ref,
  ruleName,
  swap,
  text,
  words,
  type Offer,
  type Option,
  type SentencePart,
  type SwapOption,
} from "../kit/sentence";
import { describeWhere, freeControl, offerIf, offerWhere } from "../patterns/describeParts";

const EARLY: readonly Option[] = [
  { value: "ignore", label: "is ignored", hint: "a press before the window is neither right nor wrong" },
  { value: "allow", label: "counts", hint: "an answer may begin as soon as it is shown" },
  { value: "fail", label: "fails it", hint: "a press before the window is too early" },
];

const ON: readonly Option[] = [
  { value: "success", label: "succeeds", hint: "only when the other was answered" },
  { value: "failure", label: "fails", hint: "only when the other failed" },
  { value: "any", label: "is over", hint: "whichever way it went" },
];

function startForms(prompt: Prompt, kit: Kit): SwapOption[] {
  const { starts } = prompt;
  const gateId = "gate" in starts ? starts.gate : kit.gates?.[0]?.id;
  const other =
    "prompt" in starts ? starts.prompt : (kit.prompts ?? []).find(item => item.id !== prompt.id)?.id;
  return [
    { value: "at", label: "at", hint: "at a time of its own", becomes: { at: "60f" } },
    ...(gateId === undefined
      ? []
      : [
          {
            value: "gate",
            label: "when a gate opens:",
            hint: "whenever it opens",
            becomes: { gate: gateId },
          },
        ]),
    ...(other === undefined
      ? []
      : [
          {
            value: "prompt",
            label: "after",
            hint: "when another prompt is over",
            becomes: { prompt: other, on: "success" },
          },
        ]),
  ];
}

function describeStart(prompt: Prompt, kit: Kit): SentencePart[] {
  const { starts } = prompt;
  const forms = startForms(prompt, kit);
  if ("at" in starts)
    return [
      swap("at", forms, ["starts"], "when it is shown"),
      words(" "),
      atLeast(starts.at, ["starts", "at"], "shown at"),
    ];
  if ("gate" in starts)
    return [
      swap("gate", forms, ["starts"], "when it is shown"),
      words(" "),
      gate(starts.gate, ["starts", "gate"]),
    ];
  return [
    swap("prompt", forms, ["starts"], "when it is shown"),
    words(" "),
    ref("prompt", starts.prompt, ["starts", "prompt"]),
    words(" "),
    choice(starts.on, ON, ["starts", "on"], "after which outcome"),
  ];
}

/** Describes how far a grade reaches before and after its target, where that differs. */
function describeSides(grade: Grade, k: number): SentencePart[] {
  return (["early", "late"] as const).flatMap(side =>
    optional(grade[side], ["grades", k, side], reach => [
      words(side === "early" ? ", but early within " : ", but late within "),
      atMost(reach, ["grades", k, side], `grade ${grade.name} ${side}`),
    ]),
  );
}

/** Describes a prompt as one sentence, its name first. Paths are relative to the prompt. */
export function describePrompt(prompt: Prompt, kit: Kit): SentencePart[] {
  return [
    ruleName(prompt.name || prompt.id),
    words(prompt.draw === undefined ? " asks for " : " asks for one of "),
    ...nameList("pattern", prompt.ask, ["ask"], "pattern asked for", "or", 1),
    ...optional(prompt.draw, ["draw"], seed => [
      words(", drawn each time from seed "),
      count(seed, ["draw"], "seed of the draw", 0),
    ]),
    words(", shown "),
    ...describeStart(prompt, kit),
    ...optional(prompt.lead, ["lead"], lead => [
      words(", its window opening "),
      atLeast(lead, ["lead"], "wait before its window"),
      words(" later"),
    ]),
    words(", for "),
    atMost(prompt.window, ["window"], "window"),
    ...optional(prompt.target, ["target"], target => [
      words("; best at "),
      atLeast(target, ["target"], "target"),
    ]),
    ...(prompt.grades ?? []).flatMap((grade, k) =>
      clause(
        ["grades", k],
        [
          words(k === 0 ? "; graded " : ", "),
          text(grade.name, ["grades", k, "name"], `name of grade ${k + 1}`),
          words(" within "),
          atMost(grade.within, ["grades", k, "within"], `grade ${grade.name} within`),
          ...describeSides(grade, k),
        ],
      ),
    ),
    ...optional(prompt.early, ["early"], early => [
      words("; a press before its window "),
      choice(early, EARLY, ["early"], "a press before its window"),
    ]),
    ...(prompt.wrong === "fail"
      ? clause(
          ["wrong"],
          [
            ...(prompt.wrongOn?.length
              ? [
                  words("; a press of "),
                  ...nameList("control", prompt.wrongOn, ["wrongOn"], "wrong control", "or"),
                  words(" fails it"),
                ]
              : [words("; a wrong press fails it, but none is named")]),
          ],
        )
      : []),
    ...(prompt.captures?.length
      ? clause(
          ["captures"],
          [
            words("; while it is open no other rule sees "),
            ...nameList("control", prompt.captures, ["captures"], "control it keeps"),
          ],
        )
      : []),
    ...optional(prompt.opens, ["opens"], id => [
      words("; its window opens "),
      ref("openable", id, ["opens"], "gate it opens"),
    ]),
    ...describeWhere(prompt),
  ];
}

/** Returns the controls a pattern names. */
function controlsOf(pattern: Pattern): readonly string[] {
  if ("control" in pattern) return [pattern.control];
  return "controls" in pattern ? pattern.controls : [];
}

/** Returns the clauses that could be added to a prompt, each with the resulting prompt. */
export function offerPrompt(prompt: Prompt, kit: Kit): Offer<Prompt>[] {
  const pattern = kit.patterns.find(item => !prompt.ask.includes(item.id))?.id;
  const asked = kit.patterns.filter(item => prompt.ask.includes(item.id)).flatMap(controlsOf);
  const control = freeControl(kit, [...asked, ...(prompt.wrongOn ?? [])]);
  const gateId = kit.gates?.[0]?.id;
  const grades = prompt.grades ?? [];
  const grade = grades.length === 0 ? { name: "perfect", within: "4f" } : { name: "good", within: "12f" };
  return [
    ...offerIf(pattern !== undefined, "… or one more answer", () => ({
      ...prompt,
      ask: [...prompt.ask, pattern!],
    })),
    ...offerIf(prompt.lead === undefined, "… with time to see it first", () => ({ ...prompt, lead: "30f" })),
    ...offerIf(prompt.target === undefined, "… best at a moment in the window", () => ({
      ...prompt,
      target: "20f",
    })),
    ...offerIf(
      !grades.some(item => item.name === grade.name),
      grades.length === 0 ? "… with grades" : "… with one more grade",
      () => ({
        ...prompt,
        grades: [...grades, grade],
      }),
    ),
    ...offerIf(
      grades.some(item => item.early === undefined && item.late === undefined),
      "… with a late side of its own for a grade",
      () => {
        const first = grades.findIndex(item => item.early === undefined && item.late === undefined);
        return {
          ...prompt,
          grades: grades.map((item, k) => (k === first ? { ...item, late: item.within } : item)),
        };
      },
    ),
    ...offerIf(
      grades.some(item => item.early === undefined && item.late !== undefined),
      "… and an early side of its own",
      () => {
        const first = grades.findIndex(item => item.early === undefined && item.late !== undefined);
        return {
          ...prompt,
          grades: grades.map((item, k) => (k === first ? { ...item, early: item.within } : item)),
        };
      },
    ),
    ...offerIf(
      prompt.draw === undefined && prompt.ask.length > 1,
      "… and draw one of its answers each time",
      () => ({
        ...prompt,
        draw: 1,
      }),
    ),
    ...offerIf(prompt.early === undefined, "… and what becomes of an early press", () => ({
      ...prompt,
      early: "fail" as const,
    })),
    ...offerIf(
      control !== undefined && !asked.includes(control) && !prompt.wrongOn?.includes(control),
      "… and fail on a wrong button",
      () => ({
        ...prompt,
        wrong: "fail" as const,
        wrongOn: [...(prompt.wrongOn ?? []), control!],
      }),
    ),
    ...offerIf(asked.length > 0 && !prompt.captures, "… and keep its button from other rules", () => ({
      ...prompt,
      captures: [asked[0]!],
    })),
    ...offerIf(prompt.opens === undefined && gateId !== undefined, "… and open a gate meanwhile", () => ({
      ...prompt,
      opens: gateId!,
    })),
    ...offerWhere(prompt, kit),
  ];
}
