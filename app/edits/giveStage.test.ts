import { expect, test } from "vitest";
import type { Kit } from "#core";
import { checkStage, compileRules, gatesOfStage } from "#stage";
import { giveDuel, giveRopes, giveRunner } from "./giveStage";

const BARE: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "bare",
  name: "Bare",
  rate: 60,
  controls: [{ id: "go", name: "Right", bindings: [["key:KeyD"]] }],
  patterns: [],
};

test("a kit without a stage is given one that runs; sides are found by name or made, the ground has its gate", () => {
  const given = giveRunner(BARE);
  expect(checkStage(given)).toEqual([]);
  expect(given.controls.map(control => control.name)).toEqual(["Right", "Left"]);
  expect(given.gates).toEqual([{ id: "footing", name: "Footing" }]);
  const compiled = compileRules(given);
  if (!compiled.ok) throw new Error("must compile");
  expect(compiled.value.stage?.kind).toBe("runner");
  expect([...gatesOfStage(given)]).toEqual(["footing"]);
});

test("existing parts are used", () => {
  const kit: Kit = {
    ...BARE,
    controls: [...BARE.controls, { id: "back", name: "Back", bindings: [["key:ArrowLeft"]] }],
    gates: [{ id: "floor", name: "Ground" }],
  };
  const given = giveRunner(kit);
  expect(given.controls).toEqual(kit.controls);
  expect(given.stage).toMatchObject({ run: { left: "back", right: "go" }, gates: { footing: "floor" } });
});

test("a duel: moves that do nothing yet strike or parry by their names, gates are found or made", () => {
  const move = (id: string, name: string) => ({ id, name, pattern: "press" });
  const kit: Kit = {
    ...BARE,
    patterns: [{ id: "press", name: "Press", kind: "press", control: "go" }],
    gates: [{ id: "hit", name: "struck" }],
    moves: [
      move("jab", "Jab"),
      move("guard", "High guard"),
      { ...move("kick", "Kick"), effect: { strike: 9 } },
    ],
  };
  const given = giveDuel(kit);
  expect(checkStage(given)).toEqual([]);
  expect(given.moves!.map(item => item.effect)).toEqual([{ strike: 5 }, { parry: "9f" }, { strike: 9 }]);
  expect(given.gates!.map(gate => gate.name)).toEqual(["struck", "Blocked"]);
  expect([...gatesOfStage(given)]).toEqual(["hit", "blocked"]);
  expect(compileRules(given).ok).toBe(true);
});

test("ropes need nothing but the kit's prompts", () => {
  expect(checkStage(giveRopes(BARE))).toEqual([]);
  expect(compileRules(giveRopes(BARE)).ok).toBe(true);
});

test("on a runner stage moves get effects by their names; in a duel slower strikes hit harder", () => {
  const named = (name: string, startup?: string) => ({
    id: name.toLowerCase(),
    name,
    pattern: "p",
    ...(startup ? { frames: { startup, active: "2f", recovery: "9f" } } : {}),
  });
  const kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: [{ id: "a", name: "A", bindings: [] }],
    patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
    moves: [named("High jump"), named("Dash"), named("Toll", "4f"), named("Slow toll", "16f")],
  } as Kit;
  expect(giveRunner(kit).moves!.map(move => move.effect)).toEqual([
    { leap: 19 },
    { dash: 16, for: "8f" },
    undefined,
    undefined,
  ]);
  const [, , quick, slow] = giveDuel(kit).moves!.map(move => (move.effect as { strike: number }).strike);
  expect(slow).toBeGreaterThan(quick!);
});
