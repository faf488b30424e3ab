import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { parseKit } from "#core";
import { compileRules } from "#stage";
import { groundUnder } from "./paintRunner";

test("the shadow falls on a moving beam where it is, and on the tiles elsewhere", () => {
  const kit = parseKit(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
  if (!kit.ok) throw new Error("the demo must read");
  const level = ["        ", " @      ", "########"];
  const beams = [{ x: 2, y: 2, width: 2, across: 2, up: 0, every: "120f" }];
  const compiled = compileRules({
    ...kit.value,
    stage: { ...(kit.value.stage as object), level, beams, zones: {} },
  });
  if (!compiled.ok || compiled.value.stage?.kind !== "runner") throw new Error("the kit must compile");
  const { stage } = compiled.value;
  expect(groundUnder(stage, 2.5, 2.5, 0)).toBe(2);
  // After half of its time it is two tiles further.
  expect(groundUnder(stage, 2.5, 2.5, 60)).toBe(1);
  expect(groundUnder(stage, 5.5, 2.5, 60)).toBe(2);
  // From below it there is no shadow on it.
  expect(groundUnder(stage, 5.5, 1.5, 60)).toBe(1);
  expect(groundUnder(stage, 20, 2, 0)).toBe(-Infinity);
});
