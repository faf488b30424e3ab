import { readFileSync, readdirSync } from "node:fs";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import fc from "fast-check";
import { expect, test } from "vitest";
import { parseChecks, parseKit, parseTake, type Check, type Kit } from "#core";
import type { Handover } from "../kind";
import { drawBars } from "./bars";
import { formatSheet, formatSheetBody } from "./sheet";

function readDemo(name: string): Handover {
  const read = (file: string): unknown => JSON.parse(readFileSync(`demo/${name}/${file}`, "utf8"));
  const kit = parseKit(read("kit.json"));
  const checks = parseChecks(read("checks.json"));
  const takes = readdirSync(`demo/${name}`)
    .filter(file => /^\d/.test(file))
    .flatMap(file => {
      const take = parseTake(read(file));
      return take.ok ? [take.value] : [];
    });
  if (!kit.ok || !checks.ok) throw new Error(`${name} does not read`);
  return { kit: kit.value, takes, layouts: [], checks: checks.value.checks };
}

const textOf = (html: string) =>
  html
    .replace(/<[^>]+>/g, " ")
    .replace(/&#(\d+);/g, (_, code: string) => String.fromCharCode(Number(code)))
    .replace(/\s+/g, " ");

test.each(["belfry-runner", "clapper-duel", "rope-catch"])(
  "the sheet of %s is well formed, has every rule, and asks nothing of anywhere",
  name => {
    const handover = readDemo(name);
    const body = formatSheetBody(handover);
    expect(XMLValidator.validate(body)).toBe(true);
    const { kit } = handover;
    const text = textOf(body);
    for (const list of ["moves", "patterns", "prompts", "gates"] as const)
      for (const { name: rule } of kit[list] ?? []) expect(text).toContain(rule);
    expect(text).not.toMatch(/key:|pad:|way:/);
    for (const check of handover.checks) expect(text).toContain(check.name);
    expect(text).toMatch(/does not hold: /);
    const whole = formatSheet(handover);
    expect(whole).not.toMatch(/<script|<link|https?:|url\(|@import|src=/);
    const rules = (body.match(/<div class="rule/g) ?? []).length;
    const listed = [kit.moves, kit.patterns, kit.gates, kit.prompts, kit.switches].reduce(
      (sum, list) => sum + (list?.length ?? 0),
      0,
    );
    expect(rules).toBe(listed);
  },
);

test("any name is escaped", () => {
  const demo = readDemo("belfry-runner");
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom("<", ">", "&", '"', "'", "a", " ", "/", "]", "-") }),
      name => {
        const kit: Kit = {
          ...demo.kit,
          name,
          moves: demo.kit.moves!.map(move => ({ ...move, name })),
          assists: [{ id: "a", name, windows: 150 }],
        };
        const body = formatSheetBody({ ...demo, kit, takes: demo.takes.map(take => ({ ...take, name })) });
        expect(XMLValidator.validate(body)).toBe(true);
        const shown = (new XMLParser().parse(body) as { article: { h1: unknown } }).article.h1;
        if (/[a-z]/.test(name)) expect(String(shown).trim()).not.toBe("");
      },
    ),
    { numRuns: 40 },
  );
});

test("lengths are drawn to one scale, parts of a timeline one after the other", () => {
  const figure = (field: string, frames: number, rounding: "at least" | "at most" = "at least") => {
    return {
      list: "moves",
      id: "m",
      rule: "M",
      field,
      label: field,
      written: `${frames}f`,
      frames,
      ms: 0,
      rounding,
    };
  };
  const svg = drawBars(
    [
      figure("buffer", 6, "at most"),
      figure("frames.startup", 4),
      figure("frames.active", 2),
      figure("frames.recovery", 10),
      figure("opens.0.from", 3),
      figure("opens.0.to", 9, "at most"),
      figure("cooldown", 0),
    ],
    60,
  );
  const bars = [...svg.matchAll(/<rect x="([\d.]+)" y="\d+" width="([\d.]+)"/g)].map(([, x, width]) => [
    Number(x),
    Number(width),
  ]);
  const perFrame = bars[1]![1]! / 4;
  const spans = bars.map(([x, width]) => [
    Math.round((x! - bars[0]![0]!) / perFrame),
    Math.round(width! / perFrame),
  ]);
  expect(spans).toEqual([
    [0, 6],
    [0, 4],
    [4, 2],
    [6, 10],
    [3, 6],
  ]);
  expect(textOf(svg)).toContain("6f 100 ms");
  const long = { ...figure("grades.0.within", 3), label: `grade ${"x".repeat(60)} within` };
  expect(textOf(drawBars([long], 60))).toContain("grade xxxxxxxxxxxxxxxxxx…");
  expect(drawBars([figure("cooldown", 0)], 60)).toBe("");
});

test("a sheet lists the changes since a variant (changed, added and removed statements), and further rates", () => {
  const demo = readDemo("belfry-runner");
  const [hop, ...others] = demo.kit.moves!;
  const was: Kit = {
    ...demo.kit,
    moves: [{ ...hop!, buffer: "9f" }, ...others.slice(1), { ...others[0]!, id: "gone", name: "Old step" }],
    controls: demo.kit.controls.map((control, c) =>
      c === 0 ? { ...control, bindings: [["key:KeyQ"]] } : control,
    ),
  };
  const sheet = { since: { name: "Monday", kit: was }, rates: [50] };
  const text = textOf(formatSheetBody({ ...demo, sheet }));
  const changed = /What changed since “Monday”(.*?)Moves/.exec(text)![1]!;
  expect(changed).toMatch(/buffer 9f.*buffer 6f/);
  expect(changed).toMatch(/Old step.*not there/);
  expect(changed).toMatch(/: Q/);
  expect(changed).not.toMatch(/Spring/);
  expect(text).toContain("at 50");
  expect(text).not.toContain("at 120");
  const same = textOf(formatSheetBody({ ...demo, sheet: { since: { name: "Now", kit: demo.kit } } }));
  expect(same).toContain("Nothing: rules, controls and rate are as they were.");
});

test("a check of several rates counts each take once", () => {
  const demo = readDemo("belfry-runner");
  const [move] = demo.kit.moves!;
  const check: Check = {
    id: "rated",
    name: "Rated",
    on: [demo.takes[0]!.id],
    never: { kind: "performed", id: move!.id, waited: 99 },
    rates: [60, 120],
  };
  expect(textOf(formatSheetBody({ ...demo, checks: [check] }))).toContain("holds in 1 of 1");
});
