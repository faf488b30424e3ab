import { expect, test } from "vitest";
import type { Kit } from "#core";
import belfry from "../../../demo/belfry-runner/kit.json";
import duel from "../../../demo/clapper-duel/kit.json";
import { RULE_LISTS, type RulePlace } from "../../edits/ruleEdits";
import { rowsAbout } from "./rowsAbout";

function placeOf(kit: Kit, name: string): RulePlace {
  for (const list of RULE_LISTS) {
    const rules = (kit[list] ?? []) as readonly { readonly name?: string }[];
    const index = rules.findIndex(rule => rule.name === name);
    if (index >= 0) return { list, index };
  }
  throw new Error(`no rule ${name}`);
}

const namesAbout = (kit: unknown, name: string) => [...rowsAbout(kit as Kit, placeOf(kit as Kit, name))];

test("a move's rows: itself, its pattern and that one's control, its gates, and what competes for the same press", () => {
  const about = namesAbout(belfry, "Hop");
  expect(about).toEqual(
    expect.arrayContaining([
      "moves:hop",
      "patterns:leap-press",
      "controls:leap",
      "gates:footing",
      "moves:second-hop",
    ]),
  );
  expect(about).not.toContain("controls:crouch");
  expect(about).not.toContain("patterns:coil");
});

test("a pattern's rows: with it the others that share its presses", () => {
  const about = namesAbout(belfry, "Tuck");
  expect(about).toEqual(expect.arrayContaining(["patterns:tuck", "patterns:cling", "controls:brace"]));
  expect(about).not.toContain("patterns:leap-press");
});

test("a gate's rows: who needs it and what opens it; a chain shows the blow before", () => {
  const about = namesAbout(duel, "Toll");
  expect(about).toEqual(expect.arrayContaining(["moves:toll", "moves:chime"]));
});

test("a motion's rows: the stick it names, not each of its four controls", () => {
  const kit = duel as Kit;
  const motion = kit.patterns.find(
    pattern => pattern.kind === "sequence" && pattern.steps.some(step => "dir" in step),
  )!;
  const stick = kit.sticks![0]!;
  const about = namesAbout(duel, motion.name);
  expect(about).toEqual(expect.arrayContaining([`controls:${stick.id}`, `patterns:${motion.id}`]));
  expect(about).not.toContain(`controls:${stick.down}`);
});

test("a prompt's rows: also the controls whose press fails it, and whose patterns it captures", () => {
  const sketch = {
    ...(belfry as Kit),
    prompts: [
      {
        id: "catch",
        name: "Catch",
        ask: ["tuck"],
        starts: { gate: "out:hop" },
        window: "9f",
        wrong: "fail" as const,
        wrongOn: ["leap"],
        captures: ["crouch"],
      },
    ],
  };
  const about = namesAbout(sketch, "Catch");
  expect(about).toEqual(expect.arrayContaining(["controls:leap", "controls:crouch", "moves:hop"]));
});

test("a rule that is gone has no rows", () => {
  expect([...rowsAbout(belfry as Kit, { list: "moves", index: 99 })]).toEqual([]);
});
