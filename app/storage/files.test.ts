import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { fileNameOf, formatFile, readSource } from "./files";

const DEMO = "e2e/belfry";

test.each(readdirSync(DEMO))(
  "the import takes the demo file %s, and writing it again loses nothing",
  name => {
    const source = readFileSync(join(DEMO, name), "utf8");
    const read = readSource(name, source);
    expect(read.kind).not.toBe("refused");
    const document = read.kind === "kit" ? read.kit : read.kind === "take" ? read.take : undefined;
    expect(JSON.parse(formatFile(document!))).toEqual(JSON.parse(source));
  },
);

test.each([
  ["torn", '{"format"', "this is not JSON"],
  ["foreign", '{"format": "other/thing"}', "is not moss-tap/kit"],
  ["empty", "null", "is not moss-tap/kit"],
  ["newer", '{"format":"moss-tap/take","version":2}', "version: version 2 is newer than 1"],
  [
    "backwards",
    '{"format":"moss-tap/take","version":1,"id":"t","name":"T","rate":60,"frames":9,"lanes":{"a":[[4,1],[2,0]]}}',
    "lanes.a[1][0]: 2 comes after 4",
  ],
])("a %s file is refused with a reason", (_what, source, reason) => {
  const read = readSource("x.json", source);
  expect(read.kind === "refused" && read.reasons.join("\n")).toContain(reason);
});

test("lanes stand on short lines, and names become file names", () => {
  const read = readSource("t", readFileSync(join(DEMO, "clean-climb.json"), "utf8"));
  if (read.kind !== "take") throw new Error("a take is wanted");
  expect(formatFile(read.take)).toMatch(/\n {6}\[36(\.\d+)?, 1\],?\n|\n {6}\[35\.\d+, 1\],?\n/);
  expect(fileNameOf(read.take)).toBe("clean-climb.take.json");
  expect(fileNameOf({ ...read.take, name: "Élan / Übung 2" })).toBe("élan-übung-2.take.json");
});
