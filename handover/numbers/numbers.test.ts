import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parse } from "csv-parse/sync";
import fc from "fast-check";
import { afterAll, expect, test } from "vitest";
import { listLengths, parseKit, type Kit } from "#core";
import { listStageLengths } from "#stage";
import { NO_PARTS, type Handover } from "../kind";
import { formatSheetBody } from "../sheet/sheet";
import { formatFollowsCsv, listFollows } from "./cancels";
import { formatCsv, formatHeader, formatJson, numbersFormat } from "./numbers";
import { listFigures } from "./listFigures";

const folder = mkdtempSync(join(tmpdir(), "moss-tap-numbers-"));
afterAll(() => rmSync(folder, { recursive: true }));

const readDemo = (name: string): Kit => {
  const kit = parseKit(JSON.parse(readFileSync(`demo/${name}/kit.json`, "utf8")));
  if (!kit.ok) throw new Error("the demo does not read");
  return kit.value;
};
const DEMOS = ["belfry-runner", "clapper-duel", "rope-catch"].map(readDemo);
const [RUNNER] = DEMOS;

test.each(DEMOS.map(kit => [kit.name, kit] as const))(
  "every length of %s is among its figures, in frames and in ms",
  (_name, kit) => {
    const figures = listFigures(kit);
    const places = new Set(figures.map(({ list, id, field }) => `${list} ${id} ${field}`));
    expect(places.size).toBe(figures.length);
    const lengths = figures.filter(({ frames }) => frames !== null);
    expect(lengths.length).toBeGreaterThanOrEqual(listLengths(kit).length + listStageLengths(kit).length);
    for (const { frames, ms } of lengths) expect(ms).toBeCloseTo((frames! * 1000) / kit.rate, 2);
  },
);

test("a figure has its written and its converted value; thresholds and effects without a sentence are included", () => {
  const kit: Kit = {
    ...RUNNER!,
    controls: RUNNER!.controls.map((control, k) => (k === 0 ? { ...control, pressAt: 0.3 } : control)),
    moves: RUNNER!.moves!.map((move, m) => (m === 0 ? { ...move, buffer: "110ms" } : move)),
  };
  const figures = listFigures(kit);
  expect(figures.find(({ id, field }) => id === "hop" && field === "buffer")).toEqual({
    list: "moves",
    id: "hop",
    rule: "Hop",
    field: "buffer",
    label: "buffer",
    written: "110ms",
    frames: 6,
    ms: 100,
    rounding: "at most",
  });
  expect(figures.find(({ id, field }) => id === "hop" && field === "effect.leap")).toMatchObject({
    written: "19",
    frames: null,
  });
  expect(figures.find(({ field }) => field === "effect.leap")?.label).toBe("effect leap");
  expect(figures[0]).toMatchObject({
    list: "controls",
    field: "pressAt",
    label: "press point",
    written: "0.3",
  });
});

const tricky = fc.record({
  id: fc.stringMatching(/^[A-Za-z0-9 _.:\-ÄßЖ漢!'"*+,;=@~]{1,12}$/).filter(id => id.trim() === id),
  name: fc.string({ maxLength: 30, unit: "grapheme" }),
});

/** The demo with a rule of the given id and name. */
const renamed = ({ id, name }: { readonly id: string; readonly name: string }): Kit => ({
  ...RUNNER!,
  id,
  name,
  moves: [
    ...RUNNER!.moves!,
    { ...RUNNER!.moves![0]!, id, name },
    { ...RUNNER!.moves![0]!, id: `${id}-`, name },
  ],
});

/** The rows that leave: figures without their words. */
const rowsOf = (kit: Kit) => listFigures(kit).map(({ label: _label, ...row }) => row);

test("a figure has the words of its sentence; those alike in one rule are counted", () => {
  const [hop, ...others] = RUNNER!.moves!;
  const need = hop!.needs![0]!;
  const kit: Kit = {
    ...RUNNER!,
    moves: [{ ...hop!, needs: [need, { ...need, gate: "aloft", coyote: "3f" }] }, ...others],
  };
  const labelsOf = (of: Kit, id: string) =>
    listFigures(of).flatMap(figure => (figure.id === id ? [figure.label] : []));
  expect(labelsOf(kit, "hop")).toEqual(expect.arrayContaining(["buffer", "coyote", "coyote 2"]));
  expect(labelsOf(DEMOS[2]!, "catch")).toEqual(
    expect.arrayContaining(["window", "grade clean within", "grade fair within"]),
  );
});

/** A text that a spreadsheet would run has an apostrophe before it. */
const inert = (value: string | number) =>
  typeof value === "string" && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);

test("the table parses back row by row, for any names of rules", () => {
  fc.assert(
    fc.property(tricky, names => {
      const kit = renamed(names);
      const text = formatCsv(kit);
      const rows: unknown = parse(text, { columns: true, relax_column_count: false });
      expect(rows).toEqual(
        rowsOf(kit).map(row =>
          Object.fromEntries(
            Object.entries(row).map(([key, value]) => [key, value === null ? "" : inert(value)]),
          ),
        ),
      );
      expect(text.split("\r\n")[0]).toBe("list,id,rule,field,written,frames,ms,rounding");
      expect((JSON.parse(formatJson(kit)) as { numbers: unknown }).numbers).toEqual(rowsOf(kit));
    }),
    { numRuns: 50 },
  );
});

test("every name of the header is valid in C and unique", () => {
  fc.assert(
    fc.property(tricky, names => {
      const text = formatHeader(renamed(names));
      expect(text).toMatch(/^[\x20-\x7e\n]*$/);
      const macros = [...text.matchAll(/^#define (\S+)/gm)].map(([, name]) => name!);
      expect(new Set(macros).size).toBe(macros.length);
      for (const name of macros) expect(name).toMatch(/^[A-Z_][A-Z0-9_]*$/);
    }),
    { numRuns: 100 },
  );
});

test.skipIf(!existsSync("/usr/bin/cc"))(
  "a C compiler takes the headers of all demos at once, twice over, without a word",
  () => {
    const includes = DEMOS.map((kit, k) => {
      writeFileSync(
        join(folder, `n${k}.h`),
        formatHeader(k === 0 ? renamed({ id: "a*/b ??/ Ж", name: "*/ // ??/ \\" }) : kit),
      );
      return `#include "n${k}.h"\n#include "n${k}.h"\n`;
    });
    const use =
      "int main(void) { return MOSS_CLAPPER_DUEL_RATE_HZ == 60 && MOSS_CLAPPER_DUEL_MOVES_TOLL_BUFFER_FRAMES == 6 ? 0 : 1; }\n";
    writeFileSync(join(folder, "main.c"), includes.join("") + use);
    const flags = [
      "-std=c99",
      "-Wall",
      "-Wextra",
      "-pedantic",
      "-Werror",
      "-o",
      join(folder, "main"),
      join(folder, "main.c"),
    ];
    const made = spawnSync("cc", flags, { encoding: "utf8" });
    expect(made.stderr).toBe("");
    expect(spawnSync(join(folder, "main")).status).toBe(0);
  },
);

test("which move may follow which leaves as a table and on the sheet; a kit without timelines has none", () => {
  const [runner, duel] = DEMOS;
  const rows = formatFollowsCsv(listFollows(duel!)).split("\r\n");
  expect(rows[0]).toBe("move,then,on,from_frame,to_frame,of_frames");
  expect(rows).toContain("chime,toll,hit,10,24,26");
  expect(rows.some(row => row.startsWith("chime,chime"))).toBe(false);
  const handover = (kit: Kit): Handover => ({ kit, takes: [], layouts: [], checks: [] });
  expect(formatSheetBody(handover(duel!))).toContain("<td>Chime</td><td>Toll</td><td>always</td>");
  const names = (kit: Kit) => numbersFormat.files(handover(kit), NO_PARTS).map(({ name }) => name);
  expect(names(duel!)).toContain("clapper-duel.cancels.csv");
  expect(names(runner!)).not.toContain("belfry-runner.cancels.csv");
});
