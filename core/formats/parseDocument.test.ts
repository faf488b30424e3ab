import fc from "fast-check";
import { expect, test } from "vitest";
import KIT from "../../e2e/belfry/kit.json";
import TAKE from "../../e2e/belfry/sloppy-climb.json";
import { parseTake } from "../input/parseTake";
import { parseKit } from "../kit/parseKit";
import { writeAt } from "../kit/editAt";
import { PATTERN_KIND_NAMES } from "../patterns/recordOf";
import { evaluate } from "../run/run";
import { readOutcomes } from "../study/outcomes/readOutcomes";
import { anyKit } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { drawTake, mustCompile } from "../tests/strips";
import { formatTrace } from "../trace/formatTrace";
import { formatIssue } from "./formatIssue";
import type { PathStep, Result } from "./issue";
import { FILE_LIMIT_BYTES, parseJson } from "./parseJson";

/** Returns every path into a document, down to its leaves. */
function listPaths(value: unknown, path: PathStep[] = []): PathStep[][] {
  if (typeof value !== "object" || value === null) return [path];
  const steps: PathStep[] = Array.isArray(value) ? value.map((_, i) => i) : Object.keys(value);
  return [
    path,
    ...steps.flatMap(step => listPaths((value as Record<PathStep, unknown>)[step], [...path, step])),
  ];
}

const wild = fc.oneof(
  fc.jsonValue(),
  fc.constantFrom(null, -1, 1.5, 1e300, "", "6f", "100ms", "busy:main", [], {}, true),
);

test.each([
  ["kit", KIT as unknown, parseKit as (input: unknown) => Result<unknown>],
  ["take", TAKE as unknown, parseTake as (input: unknown) => Result<unknown>],
])(
  "a %s with anything put anywhere is read or refused with sentences, and never throws",
  (_what, document, parse) => {
    let refused = 0;
    const paths = listPaths(document);
    expect(parse(document).ok).toBe(true);
    fc.assert(
      fc.property(fc.constantFrom(...paths), wild, (path, value) => {
        const read = parse(writeAt(document, path, value));
        if (read.ok) return;
        refused++;
        expect(read.issues.length).toBeGreaterThan(0);
        for (const issue of read.issues) {
          expect(formatIssue(issue)).toMatch(/^.+: .+/);
          expect(formatIssue(issue)).not.toMatch(/undefined|\[object|Invalid type/);
        }
      }),
      { numRuns: 400 },
    );
    expect(refused).toBeGreaterThan(100);
  },
);

test("any kit that parses can be run", () => {
  let ran = 0;
  const other = fc.oneof(
    wild,
    fc.constantFrom(0, "0f", "999999999999f", "a", "g", "p0", "m0", "x", ["a"], ["a", "a"]),
  );
  const take = drawTake(
    { a: "..##..######..#.#.#..##########..", b: "...#####..##..#..#####...##..", r: "..####..###.." },
    { g: "####...####..####", h: "....###...###" },
  );
  fc.assert(
    fc.property(anyKit, fc.nat(), other, (kit, n, value) => {
      const paths = listPaths(kit);
      const read = parseKit(writeAt<unknown>(kit, paths[n % paths.length]!, value));
      if (!read.ok) return;
      const program = mustCompile(read.value);
      const trace = evaluate(program, take);
      expect(formatTrace(program, trace).frames).toBe(trace.frames);
      readOutcomes(program, trace);
      ran++;
    }),
    { numRuns: Number(process.env.RUNS ?? 400) },
  );
  expect(ran).toBeGreaterThan(5);
});

test("text over the limit is refused unread, and a byte order mark does no harm", () => {
  const huge = parseJson(" ".repeat(FILE_LIMIT_BYTES + 1));
  expect(!huge.ok && formatIssue(huge.issues[0]!)).toBe(
    "the file: 33 MB is more than the 32 MB a file may have: cut the take shorter",
  );
  expect(parseJson('\uFEFF{"a":1}')).toMatchObject({ ok: true, value: { a: 1 } });
});

test("any kit written to a file and read again is the same kit", () => {
  const kinds = new Set<string>();
  assertUntil(
    fc.property(anyKit, kit => {
      const written = JSON.stringify(kit);
      const read = parseKit(JSON.parse(written));
      if (!read.ok) return;
      expect(read.value).toEqual(JSON.parse(written));
      // Parsed fields follow the order of the schema: writing again gives the same text.
      const again = parseKit(JSON.parse(JSON.stringify(read.value)));
      expect(again.ok && JSON.stringify(again.value)).toBe(JSON.stringify(read.value));
      kit.patterns.forEach(pattern => kinds.add(pattern.kind));
    }),
    { numRuns: 200 },
    () => kinds.size === PATTERN_KIND_NAMES.length,
  );
  expect([...kinds].sort()).toEqual([...PATTERN_KIND_NAMES].sort());
});
