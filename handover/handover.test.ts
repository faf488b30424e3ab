import { readFileSync } from "node:fs";
import { unzipSync } from "fflate";
import { expect, test } from "vitest";
import { parseTake } from "#core";
import { parseRules } from "#stage";
import { EXPORT_FORMATS, fileNameOf, formatFile, NO_PARTS, textFile, type HandoverParts } from "#handover";
import { expectWithin } from "../core/tests/expectWithin";

const read = (name: string): unknown => JSON.parse(readFileSync(`e2e/belfry/${name}.json`, "utf8"));
const take = (() => {
  const parsed = parseTake(read("clean-climb"));
  if (!parsed.ok) throw new Error("the test's take must read");
  return parsed.value;
})();
const kit = (() => {
  const parsed = parseRules(read("kit"));
  if (!parsed.ok) throw new Error("the test's kit must read");
  return parsed.value.kit;
})();

/** Small parts for a handover. */
const PARTS: HandoverParts = {
  player: { script: "play()", style: "p{}", body: "<p></p>", notices: "", fontNotices: "" },
  runtime: [textFile("moss-tap-runtime.mjs", "export {};", "text/javascript")],
  faces: "@font-face{}",
  pictures: [textFile("tape.svg", "<svg/>", "image/svg+xml")],
};

test("lanes are written on short lines, and names become file names", () => {
  expect(formatFile(take)).toMatch(/\n {6}\[36(\.\d+)?, 1\],?\n|\n {6}\[35\.\d+, 1\],?\n/);
  expect(fileNameOf(take)).toBe("clean-climb.take.json");
  expect(fileNameOf({ ...take, name: "Élan / Übung 2" })).toBe("élan-übung-2.take.json");
});

test("names with brackets and dashes are kept and formatted in linear time", () => {
  for (const name of ["Boss [ 2 ]", `[${"-".repeat(20_000)}`, '", "', "[1, 2]"]) {
    expectWithin(200, () => {
      const back = JSON.parse(formatFile({ ...take, name })) as { name: string };
      expect(back.name).toBe(name);
    });
  }
});

test("every form has a name, a purpose, and non-empty files with unique names", () => {
  expect(new Set(EXPORT_FORMATS.map(format => format.id)).size).toBe(EXPORT_FORMATS.length);
  for (const format of EXPORT_FORMATS) {
    expect([format.word, format.hint].join("").length, format.id).toBeGreaterThan(10);
    const files = format.files({ kit, takes: [take], layouts: [], checks: [] }, PARTS);
    expect(files.length, format.id).toBeGreaterThan(0);
    for (const { name, bytes, type } of files) {
      expect(name, format.id).toMatch(/^[\p{L}\p{N}-]+(\.[\w-]+)+$/u);
      expect(bytes.length, name).toBeGreaterThan(0);
      expect(type, name).toContain("/");
    }
  }
});

test("the pack contains the documents, byte for byte", () => {
  const files = (id: string) =>
    EXPORT_FORMATS.find(format => format.id === id)!.files(
      { kit, takes: [take, take], layouts: [], checks: [] },
      NO_PARTS,
    );
  const packed = unzipSync(files("pack")[0]!.bytes);
  expect(Object.keys(packed)).toEqual([
    "belfry-runner.kit.json",
    "clean-climb.take.json",
    "clean-climb-2.take.json",
  ]);
  expect(Object.values(packed).map(bytes => [...bytes])).toEqual(
    files("documents").map(({ bytes }) => [...bytes]),
  );
});
