import { expect, test } from "vitest";
import { formatTrace, readTake } from "#core";
import { compileRules, runRules } from "#stage";
import { parseRules } from "#stage";
import { beginKit } from "./beginKit";
import { GOALS } from "./goals";

const IDS = GOALS.map(({ id }) => id);
const setOf = (bits: number) => IDS.filter((_id, k) => (bits >> k) & 1);
const ALL = 2 ** IDS.length - 1;
/** No goal, each alone, every pair, all of them, all but one, and some of the sets between. */
const SETS = [
  ...new Set([
    0,
    ALL,
    ...IDS.flatMap((_, a) => [1 << a, ALL & ~(1 << a), ...IDS.map((_id, b) => (1 << a) | (1 << b))]),
    ...Array.from({ length: 40 }, (_, k) => (k * 641 + 97) & ALL),
  ]),
].map(setOf);

/** Runs the take of the scripted player and returns its results. */
function showOff(goals: readonly string[]) {
  const { kit, takes } = beginKit(goals, 1000);
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(`${goals.join()}: ${JSON.stringify(compiled.issues)}`);
  const rules = compiled.value;
  const shown = takes[0]!;
  const { events } = formatTrace(rules.program, runRules(rules, readTake(rules.program, shown)).trace);
  return { kit, takes, events, warnings: compiled.warnings };
}

test("every set of goals gives a valid kit without warnings, with one control per key", () => {
  for (const goals of SETS) {
    const { kit, warnings } = showOff(goals);
    expect(parseRules(JSON.parse(JSON.stringify(kit))), goals.join()).toMatchObject({ ok: true });
    expect(warnings, goals.join()).toEqual([]);
    const codes = kit.controls.flatMap(control => control.bindings.flat());
    expect(new Set(codes).size, goals.join()).toBe(codes.length);
    const names = [...kit.patterns, ...(kit.moves ?? [])].map(rule => rule.name);
    expect(new Set(names).size, goals.join()).toBe(names.length);
  }
});

test.each([
  ["jump", ["Jump"]],
  ["wall-kick", ["Jump", "Wall kick"]],
  ["fast-fall", ["Jump", "Fast fall"]],
  ["drop", ["Jump", "Drop"]],
  ["dash", ["Aimed dash", "Jump"]],
  ["charge", ["Great toll"]],
  ["chain", ["First blow", "Second blow", "Third blow"]],
  ["tap-hold", ["Quick toll", "Slow toll"]],
  ["double", ["Dash"]],
  ["motion", ["Rolling toll"]],
])("the scripted hand shows %s, alone and among all others", (goal, moves) => {
  for (const goals of [[goal], IDS]) {
    const { kit, events } = showOff(goals);
    const performed = new Set(events.flatMap(event => (event.kind === "performed" ? [event.id] : [])));
    const names = kit.moves!.filter(move => performed.has(move.id)).map(move => move.name);
    for (const move of moves)
      expect(names, goals.join()).toContain(move === "Great toll" && goals.length > 1 ? "Great leap" : move);
  }
});

test("a prompt is answered by the scripted player; no goals give only an empty take", () => {
  for (const goals of [["prompt"], IDS])
    expect(showOff(goals).events.some(event => event.kind === "prompt" && event.outcome === "perfect")).toBe(
      true,
    );
  const { kit, takes } = beginKit([], 1000);
  expect(kit).toMatchObject({ name: "New kit", controls: [], patterns: [] });
  expect(takes).toMatchObject([{ frames: 300, lanes: {} }]);
});
