import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { parseChecks, type Check, changeCheckRate } from "#core";
import { compileTakeJudge } from "#stage";
import { readKitAndTakes } from "../tests/evaluated";
import { changeRate } from "./rateEdits";
import { renameId, type IdList } from "./renameId";

function readDemo(name: string) {
  const parsed = parseChecks(JSON.parse(readFileSync(`demo/${name}/checks.json`, "utf8")));
  if (!parsed.ok) throw new Error(`the checks of ${name} do not read`);
  return { ...readKitAndTakes(`demo/${name}`), checks: parsed.value.checks, layouts: [], variants: [] };
}

const outcomes = ({ kit, checks, takes }: Pick<ReturnType<typeof readDemo>, "kit" | "checks" | "takes">) => {
  const judge = compileTakeJudge(kit, checks);
  if (!judge.ok) return JSON.stringify(judge.issues);
  return takes.map(take => judge.value(take).map(({ ok, why }) => why ?? ok));
};

test.each(["belfry-runner", "clapper-duel", "rope-catch"])(
  "whatever in %s goes by another id, its checks find what they found",
  name => {
    const demo = readDemo(name);
    const before = outcomes(demo);
    let renamed = demo;
    for (const list of ["controls", "patterns", "moves", "gates", "prompts"] as const satisfies IdList[])
      for (const { id } of demo.kit[list] ?? []) renamed = renameId(renamed, list, id, `new-${id}`);
    expect(JSON.stringify(renamed.checks)).toContain("new-");
    expect(outcomes(renamed)).toEqual(before);
  },
);

test("at another rate a check keeps its meaning, converted to the new frames", () => {
  const checks = [
    {
      id: "a",
      name: "A",
      on: "*",
      happens: { kind: "fired", id: "p" },
      at: "84f",
      within: "2f",
      from: "100ms",
    },
    { id: "b", name: "B", on: "*", same: [[84, "performed", "m"]], slip: "1f" },
  ] as Check[];
  expect(checks.map(check => changeCheckRate(check, 60, 120))).toEqual([
    { ...checks[0], at: "168f", within: "4f" },
    { ...checks[1], same: [[168, "performed", "m"]], slip: "2f" },
  ]);
  // The last frame of the longest take stays within a file's bounds at every rate.
  const last = { ...checks[1], same: [[17_280_000, "performed", "m"]], slip: "999999999999f" } as Check;
  const moved = parseChecks({
    format: "moss-tap/checks",
    version: 1,
    id: "l",
    name: "L",
    checks: [changeCheckRate(last, 1, 1000)],
  });
  expect(moved.ok).toBe(true);
  const demo = readDemo("rope-catch");
  const at120 = {
    ...demo,
    kit: changeRate(demo.kit, 120, "time"),
    checks: demo.checks.map(check => changeCheckRate(check, 60, 120)),
  };
  expect(outcomes(at120)).toEqual(outcomes(demo));
});
