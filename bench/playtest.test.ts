import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import type { Kit } from "#core";
import { compileTakeJudge } from "#stage";
import { CHECKS, drawTake } from "./playtest";

test("the checks of the measurements fit the kit that they measure", () => {
  const kit = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as Kit;
  const judge = compileTakeJudge(kit, CHECKS);
  if (!judge.ok) throw new Error(JSON.stringify(judge.issues));
  const verdicts = judge.value(drawTake(0, kit.id));
  expect(verdicts.length).toBe(CHECKS.length);
  expect(new Set(verdicts.map(({ ok }) => ok)).size).toBe(2);
});
