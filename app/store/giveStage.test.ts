import { expect, test } from "vitest";
import type { Kit } from "#core";
import { checkStage } from "#stage";
import { giveRunner } from "./giveStage";
import { compileStaged, gatesOfStage, stageOfProgram } from "./staged";

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
  const compiled = compileStaged(given);
  if (!compiled.ok) throw new Error("must compile");
  expect(stageOfProgram(compiled.value)?.kind).toBe("runner");
  expect([...gatesOfStage(given)]).toEqual(["footing"]);
});

test("what is there already is used", () => {
  const kit: Kit = {
    ...BARE,
    controls: [...BARE.controls, { id: "back", name: "Back", bindings: [["key:ArrowLeft"]] }],
    gates: [{ id: "floor", name: "Ground" }],
  };
  const given = giveRunner(kit);
  expect(given.controls).toEqual(kit.controls);
  expect(given.stage).toMatchObject({ run: { left: "back", right: "go" }, gates: { footing: "floor" } });
});
