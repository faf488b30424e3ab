import { expect, test } from "vitest";
import type { Kit } from "#core";
import { compileRules } from "#stage";
import { readKitAndTakes } from "../tests/evaluated";
import { kindsOn, setEffect } from "./effectEdits";

const { kit } = readKitAndTakes("demo/belfry-runner");
const effectIn = (of: Kit) => of.moves![0]!.effect;

test("effects of a move are added, replaced and taken away; one is no list", () => {
  const { effect: _effect, ...bare } = kit.moves![0]!;
  const begun: Kit = { ...kit, moves: [bare] };
  const one = setEffect(begun, 0, 0, "dash");
  expect(effectIn(one)).toEqual({ dash: 16, for: "8f" });
  const two = setEffect(one, 0, 1, "stop");
  expect(effectIn(two)).toEqual([{ dash: 16, for: "8f" }, { stop: true }]);
  expect(effectIn(setEffect(two, 0, 0, "float"))).toEqual([{ float: 0.5, for: "30f" }, { stop: true }]);
  expect(effectIn(setEffect(two, 0, 0, ""))).toEqual({ stop: true });
  expect(setEffect(setEffect(two, 0, 1, ""), 0, 0, "").moves![0]).not.toHaveProperty("effect");
});

test("every effect of a stage compiles as it begins, alone and as one of a list", () => {
  for (const [name] of kindsOn(kit)) {
    const alone = setEffect(kit, 0, 0, name);
    const listed = setEffect(alone, 0, 1, "stop");
    for (const of of [alone, listed]) expect(compileRules(of).ok, name).toBe(true);
  }
  expect(kindsOn({ ...kit, stage: undefined } as unknown as Kit)).toEqual([]);
});
