import { expect, test } from "vitest";
import { ruleToShow } from "./openRule";

const move = (index: number, id: string) => ({ list: "moves" as const, index, key: `move:${id}` });
const gate = { list: "gates" as const, index: 0, key: "gate:floor" };
const shown = { wanted: "move:b", place: { list: "moves" as const, index: 1 } };

test("a rule is shown by its key, wherever it is", () => {
  const rules = [move(0, "b"), move(1, "a"), gate];
  expect(ruleToShow(rules, "move:b", shown)).toBe(rules[0]);
  expect(ruleToShow(rules, "gate:floor", shown)).toBe(gate);
});

test("a rule with another id is still shown, before the address has its new key", () => {
  const rules = [gate, move(0, "a"), move(1, "renamed"), move(2, "c")];
  expect(ruleToShow(rules, "move:b", shown)?.key).toBe("move:renamed");
});

test("after a deletion the next rule of the list is shown, or the last one", () => {
  expect(ruleToShow([move(0, "a"), move(1, "c"), gate], "move:b", shown)?.key).toBe("move:c");
  expect(ruleToShow([move(0, "a"), gate], "move:b", shown)?.key).toBe("move:a");
  expect(ruleToShow([gate], "move:b", shown)).toBeUndefined();
});

test("a key that never led to a rule leads to none", () => {
  expect(ruleToShow([move(0, "a"), gate], "move:x", shown)).toBeUndefined();
  expect(ruleToShow([move(0, "a"), gate], null, undefined)).toBeUndefined();
});
