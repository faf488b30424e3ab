import { expect, test } from "vitest";
import { compile, fault, type Issue, type Kit } from "#core";
import { listHeavyKits } from "../../../bench/heavyKits";
import { groupIssues, listShown } from "./ruleIssues";

const { kit } = listHeavyKits().find(({ name }) => name.includes("1,000 moves, 7 needs"))!;
const compiled = compile(kit);
const warnings = compiled.ok ? compiled.warnings : [];
const about = (issue: Issue) => issue.path.slice(0, 2).join(" ");

test("every issue belongs to its rule or to none, in the order given", () => {
  const issues = [fault("stage", ["stage"]), ...warnings.slice(0, 300)];
  const grouped = groupIssues(issues);
  const rules = kit.moves!.map((_, index) => ({ list: "moves" as const, index }));
  for (const rule of rules.slice(0, 6))
    expect(grouped.of(rule)).toEqual(issues.filter(issue => about(issue) === `moves ${rule.index}`));
  expect(grouped.elsewhere(rules)).toEqual([issues[0]]);
});

test("a gate that nothing opens is not reported if the stage or a take opens it", () => {
  const take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 9 } as const;
  const opened = listShown(kit, warnings, [{ ...take, lanes: {}, gates: { g5: [[1, 1]] } }]);
  expect(warnings.length - opened.length).toBe(1000);
  expect(opened.some(issue => issue.facts.id === "g5")).toBe(false);
});

test("a warning accepted as wanted is not shown", () => {
  const two = {
    ...kit,
    moves: [],
    gates: [],
    patterns: ["4f", "6f"].map((max, k) => ({ id: `t${k}`, name: `T${k}`, kind: "tap", control: "c0", max })),
  } as unknown as Kit;
  const found = compile(two);
  if (!found.ok) throw new Error("two taps compile");
  const doubles = found.warnings.filter(issue => issue.code === "double-stretch");
  expect(doubles).toHaveLength(1);
  expect(listShown(two, doubles, [], ["double c0 t0 t1"])).toEqual([]);
  expect(listShown(two, doubles, [])).toEqual(doubles);
});
