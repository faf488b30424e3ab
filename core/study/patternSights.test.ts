import { expect, test } from "vitest";
import { mustCompile, sketchKit } from "../tests/strips";
import { listPatternSights, listPromptsFailedBy } from "./patternSights";

const KIT = sketchKit("ab", {
  modes: [
    { id: "ground", name: "Ground" },
    { id: "air", name: "Air" },
  ],
  patterns: [
    { id: "press", name: "Press", kind: "press", control: "a" },
    {
      id: "dive",
      name: "Dive",
      kind: "hold",
      control: "a",
      for: "6f",
      fire: "reach",
      modes: ["air"],
      captures: true,
    },
    { id: "gone", name: "Gone", kind: "tap", control: "a", max: "6f", off: true },
    { id: "other", name: "Other", kind: "press", control: "b" },
    { id: "both", name: "Both", kind: "chord", controls: ["a", "b"] },
    { id: "lift", name: "Lift", kind: "hold", control: "b", for: "6f", fire: "reach", cancel: ["a"] },
  ],
  prompts: [
    {
      id: "catch",
      name: "Catch",
      ask: ["other"],
      starts: { at: "0f" },
      window: "9f",
      wrong: "fail",
      wrongOn: ["a"],
    },
    { id: "dodge", name: "Dodge", ask: ["other"], starts: { at: "0f" }, window: "9f", wrongOn: ["a"] },
  ],
});

test("each pattern of a control sees it, or something hides it, mode by mode", () => {
  const program = mustCompile(KIT);
  const sights = (control: number, mode: number) =>
    listPatternSights(program, control, mode).map(sight => [
      program.patterns[sight.pattern]!.id,
      sight.verdict,
      sight.by,
    ]);
  expect(sights(0, 0)).toEqual([
    ["press", "hears", -1],
    ["dive", "other-mode", -1],
    ["gone", "off", -1],
    ["both", "hears", -1],
    ["lift", "cancels", -1],
  ]);
  expect(sights(0, 1)).toEqual([
    ["press", "captured", 1],
    ["dive", "hears", -1],
    ["gone", "off", -1],
    ["both", "captured", 1],
    ["lift", "captured", 1],
  ]);
  expect(sights(1, 1)).toEqual([
    ["other", "hears", -1],
    ["both", "hears", -1],
    ["lift", "hears", -1],
  ]);
  expect([0, 1].map(control => listPromptsFailedBy(program, control, 0))).toEqual([[0], []]);
});
