import fc from "fast-check";
import { expect, test } from "vitest";
import { readTake } from "../input/inputColumns";
import { compile } from "../kit/compile";
import { run } from "../run/run";
import { anyPresses, listShared } from "../tests/allowances";
import { anyTake } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { isSameDecided, listDecided } from "../trace/decided";
import { isEqualBetween, namesLosses } from "./equalBetween";
import { writeSwept, type Swept } from "./sweep/swept";

const runs = Number(process.env.RUNS ?? 60);
/** The values tried; for groups, in steps of 25 percent. */
const VALUES = Array.from({ length: 16 }, (_, k) => k);

test("runs that decide the same at two values do so at every value between", () => {
  let boundaries = 0;
  const property = fc.property(anyPresses, anyTake, fc.nat(), (kit, take, pick) => {
    const all = listShared(kit);
    const swept = all[pick % all.length]!;
    expect(isEqualBetween(swept)).toBe(true);
    const decided = VALUES.map(value => {
      const compiled = compile(writeSwept(kit, swept, swept.kind === "group" ? value * 25 : value)!);
      fc.pre(compiled.ok);
      return listDecided(run(compiled.value, readTake(compiled.value, take)));
    });
    const kinds = [decided[0]!];
    // A run that is left behind must not come back.
    for (const list of decided) {
      if (isSameDecided(list, kinds.at(-1)!)) continue;
      boundaries++;
      for (const before of kinds) expect(isSameDecided(list, before)).toBe(false);
      kinds.push(list);
    }
  });
  assertUntil(property, { numRuns: runs }, () => boundaries > 8);
  expect(boundaries).toBeGreaterThan(8);
});

test("other numbers are not thresholds alone", () => {
  const length = (path: readonly (string | number)[]): Swept => ({ kind: "length", path, unit: "f" });
  expect(isEqualBetween(length(["patterns", 0, "full"]))).toBe(false);
  expect(isEqualBetween(length(["moves", 0, "frames", "startup"]))).toBe(false);
  expect(isEqualBetween({ kind: "number", path: ["moves", 0, "effect", "leap"] })).toBe(false);
  expect(isEqualBetween({ kind: "group", group: "windows" })).toBe(false);
});

test("only a check that names a lost event looks at losses", () => {
  const base = { id: "c", name: "C", on: "*" as const };
  expect(namesLosses({ ...base, never: { kind: "lost", id: "hop", why: "gate:g" } })).toBe(true);
  expect(namesLosses({ ...base, never: { kind: "performed", id: "lost" } })).toBe(false);
});
