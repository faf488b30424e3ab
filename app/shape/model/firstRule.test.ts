import { expect, test } from "vitest";
import { beginKit } from "../../edits/goals/beginKit";
import { firstRule } from "./firstRule";
import { listRules } from "./rules";

function firstOf(goal: string) {
  const { kit } = beginKit([goal], 1000);
  const rules = listRules(kit);
  return { first: firstRule(kit, rules)?.key, top: rules[0]?.key };
}

test("Shape opens a rule that has times to pull, where the top of its list has none", () => {
  expect(firstOf("prompt")).toEqual({ first: "prompt:catch", top: "pattern:catch-press" });
  expect(firstOf("double")).toEqual({ first: "pattern:right-twice", top: "move:dash" });
  expect(firstOf("jump")).toEqual({ first: "move:jump", top: "move:jump" });
  expect(firstOf("charge")).toEqual({ first: "move:great-toll", top: "move:great-toll" });
});

test("rules about lengths of presses come first; without any map, the top of the list is opened", () => {
  const { kit } = beginKit(["jump", "tap-hold"], 1000);
  expect(firstRule(kit, listRules(kit))?.key).toMatch(/toll/);
  const { prompts: _prompts, ...plain } = beginKit(["prompt"], 1000).kit;
  expect(firstRule(plain, listRules(plain))?.key).toBe("pattern:catch-press");
  expect(firstRule(plain, [])).toBeUndefined();
});
