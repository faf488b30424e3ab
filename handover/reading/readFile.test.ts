import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { formatFile } from "../documents/documents";
import { packFiles } from "../pack/pack";
import { readWhole } from "./readFile";
import { readSource, type ReadFile } from "./readSource";

const DEMO = "e2e/belfry";

test.each(readdirSync(DEMO))(
  "the import takes the demo file %s, and writing it again loses nothing",
  name => {
    const source = readFileSync(join(DEMO, name), "utf8");
    const [read] = readSource(name, source) as [ReadFile];
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
  const [read] = readSource("x.json", source) as [ReadFile];
  expect(read.kind === "refused" && read.reasons.join("\n")).toContain(reason);
});

test("several documents are packed in one file, duplicates renamed, and unpack unchanged", () => {
  const read = ["kit", "clean-climb", "sloppy-climb", "clean-climb"].flatMap(name =>
    readSource(name, readFileSync(join(DEMO, `${name}.json`), "utf8")),
  );
  const documents = read.map(file => {
    if (file.kind === "kit") return file.kit;
    if (file.kind === "take") return file.take;
    throw new Error(`${file.name} does not read`);
  });
  const { name, bytes } = packFiles(documents);
  expect(name).toBe("belfry-runner.zip");
  const back = readWhole(name, bytes);
  expect(back.map(file => file.name)).toEqual([
    "belfry-runner.kit.json",
    "clean-climb.take.json",
    "sloppy-climb.take.json",
    "clean-climb-2.take.json",
  ]);
  expect(
    back.map(file => (file.kind === "kit" ? file.kit : file.kind === "take" ? file.take : undefined)),
  ).toEqual(documents);
});

test("an invalid and a truncated pack are refused with a sentence", () => {
  const { bytes } = packFiles([]);
  expect(readWhole("empty.zip", bytes)).toEqual([]);
  const [torn] = readWhole("x.zip", new TextEncoder().encode("no pack at all"));
  expect(torn).toMatchObject({ kind: "refused", name: "x.zip" });
});
