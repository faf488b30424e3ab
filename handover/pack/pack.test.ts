import { createHash } from "node:crypto";
import { readFileSync, readdirSync } from "node:fs";
import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate, zipSync } from "fflate";
import fc from "fast-check";
import { beforeAll, expect, test } from "vitest";
import { parseChecks, parseTake, type Kit, type Layout, type Take } from "#core";
import { parseRules } from "#stage";
import { formatFile } from "../documents/documents";
import { EXPORT_FORMATS } from "../kinds";
import type { Handover, HandoverParts } from "../kind";
import { textFile } from "../outFile";
import { readWhole } from "../reading/readFile";
import type { ReadFile } from "../reading/readSource";
import { packFiles } from "./pack";

const read = (file: string): unknown => JSON.parse(readFileSync(`demo/clapper-duel/${file}`, "utf8"));
const takes = readdirSync("demo/clapper-duel")
  .filter(file => /^\d/.test(file))
  .flatMap(file => {
    const take = parseTake(read(file));
    return take.ok ? [take.value] : [];
  });
const LAYOUT: Layout = { format: "moss-tap/layout", version: 1, id: "left", name: "Left hand", bindings: {} };
const PARTS: HandoverParts = {
  player: { script: "play()", style: "p{}", body: "<p></p>", notices: "", fontNotices: "" },
  runtime: [textFile("moss-tap-runtime.mjs", "export {};", "text/javascript")],
  faces: "@font-face{}",
  pictures: [textFile("tape.svg", "<svg/>", "image/svg+xml")],
};
let handover: Handover;
let packed: Uint8Array<ArrayBuffer>;

beforeAll(() => {
  const rules = parseRules(read("kit.json"));
  const checks = parseChecks(read("checks.json"));
  if (!rules.ok || !checks.ok) throw new Error("the demo must read");
  const { kit } = rules.value;
  // Two takes of one name, and an older version of the rules.
  handover = {
    kit,
    takes: [...takes, { ...takes[0]!, id: "again" }],
    layouts: [LAYOUT],
    checks: checks.value.checks,
    variants: [{ name: "Slower", kit: { ...kit, rate: 30 } }],
  };
  packed = EXPORT_FORMATS[0]!.files(handover, PARTS)[0]!.bytes;
});

const kindsOf = (files: readonly ReadFile[]) => files.map(({ kind }) => kind).join(" ");
const reasonsOf = (files: readonly ReadFile[]) =>
  files.flatMap(file => (file.kind === "refused" ? [`${file.name}: ${file.reasons.join("; ")}`] : []));

test("the pack contains everything, and its manifest describes each file", () => {
  const files = unzipSync(packed);
  const names = Object.keys(files);
  for (const folder of "documents variants sheet numbers page runtime vectors waveforms pictures schemas".split(
    " ",
  ))
    expect(names.filter(name => name.startsWith(`${folder}/`)).length, folder).toBeGreaterThan(0);
  const { files: listed } = JSON.parse(strFromU8(files["manifest.json"]!)) as {
    files: { name: string; bytes: number; sha256: string }[];
  };
  expect(listed.map(({ name }) => name).sort()).toEqual(
    names.filter(name => name !== "manifest.json").sort(),
  );
  for (const { name, bytes, sha256 } of listed) {
    expect(files[name]!.length, name).toBe(bytes);
    expect(createHash("sha256").update(files[name]!).digest("hex"), name).toBe(sha256);
  }
});

test("the README lists the folders that the pack has, and no others", () => {
  const bare = EXPORT_FORMATS[0]!.files(
    { ...handover, variants: [], takes: [], skipsBoundaries: true },
    PARTS,
  )[0]!.bytes;
  for (const bytes of [packed, bare]) {
    const files = unzipSync(bytes);
    const folders = new Set(Object.keys(files).flatMap(name => name.match(/^[^/]+(?=\/)/) ?? []));
    const listed = strFromU8(files["README.md"]!).match(/(?<=^- `)[^/`]+(?=\/`)/gm);
    expect(listed?.sort()).toEqual([...folders].sort());
  }
  expect(Object.keys(unzipSync(bare)).filter(name => name.startsWith("variants/"))).toEqual([]);
});

test("exporting, importing and exporting again gives the same documents and bytes", () => {
  const back = readWhole("all.zip", packed);
  expect(kindsOf(back)).toBe("kit take take take take take layout checks variant passed");
  const find = <K extends ReadFile["kind"]>(kind: K) =>
    back.filter((file): file is Extract<ReadFile, { kind: K }> => file.kind === kind);
  const again: Handover = {
    kit: find("kit")[0]!.kit,
    takes: find("take").map(({ take }) => take),
    layouts: find("layout").map(({ layout }) => layout),
    checks: find("checks")[0]!.checks.checks,
    variants: find("variant").map(({ kit }) => ({
      name: kit.name,
      kit: { ...kit, name: handover.kit.name },
    })),
  };
  expect(again).toEqual(handover);
  expect(Buffer.from(EXPORT_FORMATS[0]!.files(again, PARTS)[0]!.bytes).equals(Buffer.from(packed))).toBe(
    true,
  );
});

test("a file that differs from the manifest is refused by name, and the others are read", () => {
  const files = unzipSync(packed);
  const name = Object.keys(files).find(file => file.endsWith(".take.json"))!;
  files[name] = strToU8(strFromU8(files[name]!).replace('"rate": 60', '"rate": 30'));
  const back = readWhole("all.zip", zipSync(files));
  expect(reasonsOf(back)).toEqual([
    expect.stringMatching(`^${name}: it differs from its entry in manifest.json`),
  ]);
  expect(kindsOf(back)).toBe("kit refused take take take take layout checks variant passed");
});

/** A zip with files of any names, including duplicates. */
function zipOf(...files: readonly (readonly [name: string, text: string])[]): Uint8Array {
  const pieces: Uint8Array[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    pieces.push(piece);
  });
  for (const [name, text] of files) {
    const file = new ZipDeflate(name);
    zip.add(file);
    file.push(strToU8(text), true);
  }
  zip.end();
  return Uint8Array.from(Buffer.concat(pieces));
}

const TAKE = formatFile(takes[0]!);

test.each([
  ["../out.json", "its name leads out of the pack"],
  ["a/../../out.json", "its name leads out of the pack"],
  ["/etc/out.json", "its name leads out of the pack"],
  ["C:\\out.json", "its name leads out of the pack"],
  ["a\\..\\out.json", "its name leads out of the pack"],
])("a path that climbs, %s, is refused in words, and its neighbours are read", (name, words) => {
  const back = readWhole("x.zip", zipOf([name, TAKE], ["fine.take.json", TAKE]));
  expect(kindsOf(back)).toBe("take refused");
  expect(reasonsOf(back)[0]).toContain(words);
});

test("of a duplicate name the first is read; a pack in a pack and other files are skipped", () => {
  const other = TAKE.replace(takes[0]!.name, "Other");
  const back = readWhole(
    "x.zip",
    zipOf(["a.json", TAKE], ["a.json", other], ["b.zip", "PK"], ["c.txt", "hello"]),
  );
  expect(kindsOf(back)).toBe("take passed passed refused");
  expect(reasonsOf(back)).toEqual([expect.stringContaining("is in the pack twice")]);
  expect(back[0]).toMatchObject({ take: { name: takes[0]!.name } });
});

test("excessive contents are not unpacked: a single file, many together, and one with a false size", () => {
  const zeros = new Uint8Array(40 * 1024 * 1024).fill("0".charCodeAt(0));
  const bomb = readWhole("x.zip", zipSync({ "bomb.json": zeros, "fine.json": strToU8(TAKE) }, { level: 1 }));
  expect(kindsOf(bomb)).toBe("take refused");
  expect(reasonsOf(bomb)[0]).toMatch(/40 MB is more than the 32 MB/);
  const sly = readWhole("x.zip", zipSync({ "sly.json": zeros.subarray(0, 30 * 1024 * 1024) }, { level: 1 }));
  expect(reasonsOf(sly)[0]).toMatch(/it would unpack to \d+ times its size/);
  // A file with a falsified small size unpacks to at most that size.
  const lying = zipSync({ "lie.json": zeros.subarray(0, 4 * 1024 * 1024) });
  const view = new DataView(lying.buffer, lying.byteOffset);
  for (let at = 0; at < lying.length - 4; at++) {
    if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 64, true);
    if (view.getUint32(at, true) === 0x04034b50) view.setUint32(at + 22, 64, true);
  }
  expect(kindsOf(readWhole("x.zip", lying))).toBe("refused");
  const many = Object.fromEntries(Array.from({ length: 20_010 }, (_, k) => [`${k}.json`, new Uint8Array(0)]));
  expect(reasonsOf(readWhole("x.zip", zipSync(many, { level: 0 }))).at(-1)).toMatch(/^10 more in the pack: /);
});

test("a truncated pack is refused as a whole; no bytes make the reader throw", () => {
  const { bytes } = packFiles([handover.kit, ...takes]);
  let refused = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: bytes.length - 1 }),
      fc.boolean(),
      fc.integer({ min: 1, max: 255 }),
      (at, isCut, by) => {
        const broken = isCut ? bytes.slice(0, at) : bytes.slice();
        if (!isCut) broken[at] = broken[at]! ^ by;
        const back = readWhole("x.zip", broken);
        if (isCut) expect(kindsOf(back)).toBe("refused");
        for (const file of back)
          if (file.kind === "refused") refused += file.reasons.length > 0 ? 1 : Number.NaN;
      },
    ),
    { numRuns: 200 },
  );
  expect(refused).toBeGreaterThan(100);
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 400 }), noise => {
      expect(readWhole("x.zip", noise)).toHaveLength(1);
      expect(readWhole("x.json", noise).length).toBeGreaterThan(0);
    }),
  );
});

test("takes of one document are read separately, and a broken one is reported with its place", () => {
  const named = { format: "moss-tap/takes", version: 1, id: "r", name: "Rounds", kit: "k" };
  const back = readWhole(
    "r.json",
    strToU8(JSON.stringify({ ...named, takes: [takes[0], { id: 3 }, takes[1]] })),
  );
  expect(kindsOf(back)).toBe("take refused take");
  expect(reasonsOf(back)[0]).toMatch(/^r\.json, takes\[1\]: .*format/);
  expect(back[2]).toMatchObject({ take: takes[1] as Take });
  expect(kindsOf(readWhole("r.json", strToU8(JSON.stringify({ ...named, takes: 3, stray: 1 }))))).toBe(
    "refused",
  );
  expect(readWhole("r.json", strToU8(JSON.stringify({ ...named, takes: [] })))).toEqual([]);
});

test("exported files that cannot be imported are skipped with a reason", () => {
  const say = (format: string) =>
    kindsOf(readWhole("x.json", strToU8(JSON.stringify({ format, version: 1 }))));
  expect(["trace", "results", "manifest"].map(name => say(`moss-tap/${name}`))).toEqual(
    Array.from({ length: 3 }, () => "passed"),
  );
  expect(reasonsOf(readWhole("play.csv", strToU8("a,b")))[0]).toMatch(/map it at Hand over/);
});

test("a kit with faults is exported without the files that need its rules", () => {
  const kit: Kit = { ...handover.kit, moves: [{ ...handover.kit.moves![0]!, pattern: "nobody" }] };
  const [file] = EXPORT_FORMATS[0]!.files({ kit, takes, layouts: [], checks: [] }, PARTS);
  const names = Object.keys(unzipSync(file!.bytes));
  expect(names.some(name => name.startsWith("documents/"))).toBe(true);
  expect(names.some(name => /^(page|vectors|waveforms)\//.test(name))).toBe(false);
});
