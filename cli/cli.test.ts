import { spawnSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { DuckDBInstance } from "@duckdb/node-api";
import { XMLParser } from "fast-xml-parser";
import { unzipSync } from "fflate";
import { Parser } from "tap-parser";
import { afterAll, expect, test } from "vitest";
import {
  compareResults,
  parseChecks,
  parseKit,
  type Checks,
  type CheckResult,
  type Kit,
  type Take,
} from "#core";
import { EXPORT_FORMATS, NO_PARTS } from "#handover";
import { judgeFiles } from "./checks/judgeFiles";
import { compileCommand } from "./compile.mjs";
import { formatJunit, formatTap } from "./checks/reports";
import type { PackagedParts } from "./parts";
import { bundlePlayer } from "../runtime/playerParts.mjs";
import { runtimeFiles } from "../runtime/files.mjs";
import { writePresses } from "./presses/writePresses";
import { listTakeFiles, parseShard, type TakeFile } from "./takeFiles";

const folder = mkdtempSync(join(tmpdir(), "moss-tap-cli-"));
afterAll(() => rmSync(folder, { recursive: true }));

const WHOLE = { index: 1, count: 1 };

function readDemo(name: string): { kit: Kit; checks: Checks; files: readonly TakeFile[] } {
  const kit = parseKit(JSON.parse(readFileSync(`demo/${name}/kit.json`, "utf8")));
  const checks = parseChecks(JSON.parse(readFileSync(`demo/${name}/checks.json`, "utf8")));
  const files = listTakeFiles([`demo/${name}`]);
  if (!kit.ok || !checks.ok || "lines" in files) throw new Error(`the demo ${name} does not read`);
  return { kit: kit.value, checks: checks.value, files };
}

async function judge(
  { kit, checks, files }: ReturnType<typeof readDemo>,
  shard = WHOLE,
  rates: readonly number[] = [],
): Promise<readonly CheckResult[]> {
  const judged = await judgeFiles(kit, checks, files, { rates, threads: 1, shard });
  if ("lines" in judged) throw new Error(judged.lines.join("\n"));
  return judged.results;
}

/** The compiled command; `npm run` compiles it anew each time (docs/fileFormats.test.ts runs it). */
const compiled = `${await compileCommand(join(folder, "command"))}/moss-tap.mjs`;
symlinkSync(resolve("node_modules"), join(folder, "node_modules"));

/** Runs a command of the project as on a build server. */
function run(...args: readonly string[]) {
  const env = { ...process.env, MOSS_TAP_PROJECT: resolve(".") };
  const ran = spawnSync("node", [compiled, ...args], { encoding: "utf8", env });
  const stderr = ran.stderr.split("\n").filter(line => line);
  return { code: ran.status, stdout: ran.stdout, stderr };
}

const FAILING = [
  ["belfry-runner", "A press just before the landing is not eaten, take 3-eaten at 60"],
  ["clapper-duel", "A chain pressed too early still comes out, take 2-pressed-too-early at 60"],
  ["rope-catch", "A catch too soon is let pass, take 3-too-soon at 60"],
] as const;

test.each(FAILING)(
  "the checks of %s hold, but for the one in the take made to fail",
  async (name, failing) => {
    const demo = readDemo(name);
    const results = await judge(demo);
    expect(results.length).toBeGreaterThanOrEqual(5);
    const failed = formatTap(results, demo.checks)
      .split("\n")
      .filter(line => line.startsWith("not ok"));
    expect(failed.map(line => line.replace(/^not ok \d+ - /, ""))).toEqual([failing]);
  },
);

test("the command gives the same results, and its exit code", async () => {
  const demo = readDemo("belfry-runner");
  const ran = run("check", ...["kit.json", "checks.json", ""].map(name => `demo/belfry-runner/${name}`));
  expect([ran.code, ran.stdout]).toEqual([1, formatTap(await judge(demo), demo.checks)]);
  expect(ran.stderr.at(-1)).toMatch(
    /^4 takes judged; left out: .*checks\.json: is moss-tap\/checks, .*kit\.json/,
  );
});

test("results are read as TAP and as JUnit XML by readers of their own, whatever names they hold", async () => {
  const demo = readDemo("belfry-runner");
  const odd = "is # not \\ eaten <&\u0001> \ud800";
  const renamed = demo.checks.checks.map(check => (check.id === "eaten" ? { ...check, name: odd } : check));
  const checks = { ...demo.checks, checks: renamed };
  const results = await judge({ ...demo, checks }, WHOLE, [144]);
  expect(results.filter(result => result.rate === 144)).toHaveLength(7);
  const tap = Parser.parse(formatTap(results, checks));
  const points = tap.flatMap(item => (item[0] === "assert" ? [item[1]] : []));
  expect(tap.find(item => item[0] === "complete")?.[1]).toMatchObject({ count: results.length });
  expect(points.map(point => point.ok)).toEqual(results.map(result => result.ok));
  const failed = points.find(point => point.name.includes("3-eaten at 60") && !point.ok);
  expect(failed?.name).toContain("is # not \\ eaten");
  expect(failed?.diag).toMatchObject({ check: "eaten", take: "3-eaten", why: "happened", f: 142 });
  const reader = new XMLParser({ ignoreAttributes: false, parseAttributeValue: true });
  const { testsuites } = reader.parse(formatJunit(results, checks)) as {
    testsuites: { testsuite: Record<string, unknown> & { testcase: Record<string, unknown>[] } };
  };
  const { testsuite } = testsuites;
  expect(testsuite["@_tests"]).toBe(results.length);
  expect(testsuite["@_failures"]).toBe(results.filter(result => !result.ok).length);
  expect(
    testsuite.testcase.find(item => item["@_classname"] === "3-eaten at 60" && "failure" in item),
  ).toMatchObject({
    "@_name": expect.stringContaining("is # not \\ eaten"),
    "@_classname": "3-eaten at 60",
    failure: { "@_type": "happened", "@_message": "it happened, first on frame 142" },
  });
});

test("four shards together give the results of one run, and missing takes are reported once", async () => {
  const demo = readDemo("belfry-runner");
  const [first, ...rest] = demo.checks.checks;
  const on = ["2-late-at-every-edge", "nowhere"];
  const checks = { ...demo.checks, checks: [{ ...first!, on }, ...rest] };
  const shards = await Promise.all(
    [1, 2, 3, 4].map(index => judge({ ...demo, checks }, { index, count: 4 })),
  );
  const lines = (results: readonly CheckResult[]) => results.map(result => JSON.stringify(result)).sort();
  expect(lines(shards.flat())).toEqual(lines(await judge({ ...demo, checks })));
  expect(shards.flat().filter(result => result.why === "no-take")).toHaveLength(1);
  expect(["1/4", "4/4", "0/4", "5/4", "1", "a/b"].map(text => parseShard(text)?.index)).toEqual([
    1,
    4,
    ...Array<undefined>(4).fill(undefined),
  ]);
});

test("unreadable input is reported line by line, with nothing on standard output, and exit code 2", () => {
  const broken = join(folder, "broken.json");
  writeFileSync(
    broken,
    JSON.stringify({
      format: "moss-tap/checks",
      version: 1,
      id: "b",
      name: "B",
      checks: [
        { id: "a", name: "A", on: "*", never: { kind: "lost", id: "skip" } },
        { id: "b", name: "B", on: "*", answers: "leaps" },
      ],
    }),
  );
  const kit = "demo/belfry-runner/kit.json";
  const strange = run("check", kit, broken, "demo/belfry-runner");
  expect([strange.code, strange.stdout]).toEqual([2, ""]);
  expect(strange.stderr.map(line => line.split(": there")[0])).toEqual([
    `${broken}: checks[0].never.id`,
    `${broken}: checks[1].answers`,
  ]);
  const other = run("check", kit, "demo/belfry-runner/checks.json", "demo/rope-catch/1-clean-round.json");
  expect([other.code, other.stderr]).toEqual([
    1,
    [
      "demo/rope-catch/1-clean-round.json: was recorded for rope-catch; belfry-runner has no far, high, low, near: no rule sees those presses",
    ],
  ]);
  const none = run("judge", kit, "nowhere", kit, "--out", join(folder, "none.txt"), "--shard", "9/4");
  expect([none.code, none.stdout, none.stderr.length]).toEqual([2, "", 3]);
});

/** Writes takes of the demo with presses of Leap that differ from take to take. */
function writeTakes(count: number): TakeFile[] {
  return Array.from({ length: count }, (_, k) => {
    const leap = Array.from({ length: 12 }, (_, p) => 20 + p * (19 + (k % 11)));
    const take: Take = {
      format: "moss-tap/take",
      version: 1,
      id: `take-${k}`,
      name: `Take ${k}`,
      rate: 60,
      frames: 420,
      player: `player, "${k % 3}"`,
      lanes: {
        right: [[k % 7, 1]],
        leap: leap.flatMap((at): [number, number][] => [
          [at, 1],
          [at + 3 + (k % 9), 0],
        ]),
      },
    };
    const path = join(folder, `${String(k).padStart(3, "0")}.json`);
    writeFileSync(path, JSON.stringify(take));
    return { path, isFound: false };
  });
}

test("takes of one file are judged separately, and a broken one is named by its place", async () => {
  const { kit, checks } = readDemo("belfry-runner");
  const takes = writeTakes(3).map(({ path }) => JSON.parse(readFileSync(path, "utf8")) as Take);
  const put = (name: string, all: readonly unknown[]) => {
    const path = join(folder, name);
    const head = { format: "moss-tap/takes", version: 1, id: "r", name: "Rounds", kit: kit.id };
    writeFileSync(path, JSON.stringify({ ...head, takes: all }));
    return path;
  };
  const everywhere = { ...checks, checks: checks.checks.map(check => ({ ...check, on: "*" as const })) };
  const find = async (path: string) => {
    const files = listTakeFiles([path]);
    if ("lines" in files) throw new Error(files.lines.join());
    return judgeFiles(kit, everywhere, files, { rates: [], threads: 1, shard: WHOLE });
  };
  const one = await judge({ kit, checks: everywhere, files: writeTakes(3) });
  expect(await find(put("back.takes.json", takes))).toMatchObject({ results: one });
  const broken = await find(put("broken.takes.json", [takes[0], { ...takes[1], rate: 0 }]));
  // A file of takes is parsed when it is listed, not once more for each take.
  const listed = listTakeFiles([put("gone.takes.json", takes)]);
  rmSync(join(folder, "gone.takes.json"));
  if ("lines" in listed) throw new Error(listed.lines.join());
  expect(await judge({ kit, checks: everywhere, files: listed })).toEqual(one);
  const bare = join(folder, "bare.takes.json");
  writeFileSync(bare, JSON.stringify({ format: "moss-tap/takes", version: 1, name: "Bare", takes }));
  expect(await find(bare)).toEqual({ lines: [expect.stringMatching(/bare\.takes\.json: id: is missing/)] });
  // The bad round alone is left out.
  expect(broken).toMatchObject({
    takes: 1,
    broken: [expect.stringMatching(/broken\.takes\.json, takes\[1\]: rate: /)],
  });
});

test("the takes of a pack are judged like those of a folder, and its other documents are named as left out", async () => {
  const { kit, checks, files } = readDemo("belfry-runner");
  const takes = files
    .map(({ path }) => JSON.parse(readFileSync(path, "utf8")) as Take)
    .filter(item => "lanes" in item);
  const variants = [{ name: "Slower", kit: { ...kit, rate: 30 } }];
  const handover = { kit, takes, layouts: [], checks: checks.checks, variants };
  const [pack] = EXPORT_FORMATS[0]!.files(handover, NO_PARTS);
  const path = join(folder, "all.zip");
  writeFileSync(path, pack!.bytes);
  const listed = listTakeFiles([path]);
  if ("lines" in listed) throw new Error(listed.lines.join());
  const judged = await judgeFiles(kit, checks, listed, { rates: [], threads: 1, shard: WHOLE });
  const inPack = (name: string, words: string) =>
    expect.stringContaining(`${path}, ${name}: ${words}`) as unknown;
  expect(judged).toMatchObject({
    results: await judge({ kit, checks, files }),
    broken: [],
    leftOut: [
      inPack("documents/belfry-runner.kit.json", "holds a kit"),
      expect.stringMatching(/checks\.json: holds checks$/),
      inPack("variants/slower.kit.json", "holds a variant"),
      expect.stringMatching(/more files of the pack: no documents/),
    ],
  });
});

test("two threads find what one finds; a query engine finds in four shards of presses what one run has, as Parquet and as CSV", async () => {
  const { kit, checks } = readDemo("belfry-runner");
  const files = writeTakes(60);
  const everywhere = { ...checks, checks: checks.checks.map(check => ({ ...check, on: "*" as const })) };
  const inThreads = (threads: number) =>
    judgeFiles(kit, everywhere, files, { rates: [], threads, shard: WHOLE });
  const alone = await inThreads(1);
  expect("results" in alone && alone.results.length).toBe(60 * 7);
  expect(await inThreads(2)).toEqual(alone);
  const at = (name: string) => join(folder, name);
  const wrote = await writePresses(kit, files, { out: at("whole.csv"), threads: 2, shard: WHOLE });
  expect(wrote).toMatchObject({ takes: 60, presses: 60 * 13, frames: 60 * 420 });
  for (const index of [1, 2, 3, 4])
    await writePresses(kit, files, { out: at(`s${index}.parquet`), threads: 1, shard: { index, count: 4 } });
  const connection = await (await DuckDBInstance.create(":memory:")).connect();
  const ask = async (from: string) => {
    const sums = `select used_by, "by", lost_why, player, count(*), sum(frame), sum(held_frames), round(sum(ms)), sum(waited), sum(missed_by)`;
    const read = await connection.runAndReadAll(`${sums} from ${from} group by all order by all`);
    return JSON.stringify(read.getRowsJson());
  };
  const whole = await ask(`read_csv('${at("whole.csv")}', header = true)`);
  expect(JSON.parse(whole).length).toBeGreaterThan(8);
  expect(await ask(`read_parquet('${at("s*.parquet")}')`)).toBe(whole);
  connection.closeSync();
  const broken = at("broken-take.json");
  writeFileSync(broken, "{}");
  const refused = await writePresses(kit, [...files, { path: broken, isFound: false }], {
    out: at("refused.parquet"),
    threads: 2,
    shard: WHOLE,
  });
  expect("lines" in refused && refused.lines).toEqual([
    `${broken}: format: format nothing is not moss-tap/take: choose a file that Moss Tap exported`,
  ]);
  expect(existsSync(at("refused.parquet"))).toBe(false);
});

test("a kit is exported in every form, with the same files as the page; unreadable input writes nothing", async () => {
  const out = join(folder, "out");
  const kit = "demo/rope-catch/kit.json";
  const exported = (as: string, ...more: readonly string[]) => {
    const ran = run("export", kit, "demo/rope-catch", "--as", as, "--out", join(out, as), ...more);
    expect([as, ran.code, ran.stderr]).toEqual([as, 0, []]);
    return readFileSync(
      join(
        out,
        as === "vcd" ? "vcd/clean-round.vcd" : as === "runtime" ? "runtime/moss-tap-runtime.mjs" : as,
      ),
    );
  };
  const form = (id: string) => {
    const { checks, files } = readDemo("rope-catch");
    const takes = files
      .map(({ path }) => JSON.parse(readFileSync(path, "utf8")) as Take)
      .filter(item => "lanes" in item);
    const read = readDemo("rope-catch");
    return EXPORT_FORMATS.find(item => item.id === id)!.files(
      { kit: read.kit, takes, layouts: [], checks: checks.checks },
      NO_PARTS,
    );
  };
  const isSame = (bytes: Buffer, file: { readonly bytes: Uint8Array }) =>
    bytes.equals(Buffer.from(file.bytes));
  expect(isSame(exported("header"), form("numbers")[2]!)).toBe(true);
  expect(isSame(exported("vcd"), form("vcd")[0]!)).toBe(true);
  // In a checkout the parts are bundled by each export; the others find them beside the command, as in its package.
  expect(exported("runtime").toString()).toMatch(/as loadKit/);
  const parts: PackagedParts = { player: await bundlePlayer(), runtime: await runtimeFiles() };
  writeFileSync(join(folder, "command/parts.json"), JSON.stringify(parts));
  expect(exported("page").toString()).toMatch(/id="played">\{"kit":/);
  const names = Object.keys(unzipSync(exported("zip", "--rates", "50", "--no-boundaries")));
  for (const wanted of ["manifest.json", "documents/rope-catch.kit.json", "page/rope-catch.page.html"])
    expect(names).toContain(wanted);
  const vectors = Object.keys(unzipSync(exported("vectors", "--checks", "demo/rope-catch/checks.json")));
  const withoutParts = Object.keys(unzipSync(form("vectors")[0]!.bytes));
  expect([...vectors].sort()).toEqual([...withoutParts, "frame-rules.md"].sort());
  expect(vectors).toEqual(
    expect.arrayContaining(["README.md", "index.json", "results.json", "schemas/kit.schema.json"]),
  );
  expect(vectors.filter(name => name.startsWith("boundaries/")).length).toBeGreaterThan(20);
  const ofTakes = Object.keys(unzipSync(exported("vectors", "--no-boundaries")));
  expect(ofTakes.filter(name => name.startsWith("boundaries/"))).toEqual([]);
  // A folder takes any form; a name that promises another kind of file is refused, and nothing is written.
  const folderOut = `${join(out, "in-a-folder")}/`;
  expect(run("export", kit, "--as", "header", "--out", folderOut).code).toBe(0);
  expect(readdirSync(folderOut)).toEqual(["rope-catch.numbers.h"]);
  for (const [as, name, words] of [
    ["pack", "wrong.json", /--as pack writes a \.zip file: name it so, or name a folder/],
    ["numbers", "wrong.csv", /--as numbers writes \d files \(\.csv, \.json\): name a folder/],
  ] as const) {
    const refused = run("export", kit, "--as", as, "--out", join(out, name));
    expect([refused.code, refused.stderr[0]]).toEqual([2, expect.stringMatching(words)]);
    expect(existsSync(join(out, name))).toBe(false);
  }
  const none = run("export", "nowhere.json", "--as", "header", "--out", join(out, "never.h"));
  expect([none.code, existsSync(join(out, "never.h"))]).toEqual([2, false]);
  expect(run("export", kit, "--as", "vcd", "--out", join(out, "never")).stderr[0]).toMatch(
    /nothing to write: name takes/,
  );
});

test("a recording from another program is imported by its mapping; a mapping of another sort is refused", () => {
  const at = (name: string) => join(folder, name);
  const map = {
    format: "moss-tap/mapping",
    version: 1,
    sort: "changes",
    rate: 60,
    time: "t",
    unit: "ms",
    control: "key",
    value: "down",
    controls: { SPACE: "leap" },
  };
  writeFileSync(at("map.json"), JSON.stringify(map));
  writeFileSync(at("play.csv"), "\ufefft,key,down\r\n100,SPACE,1\r\n\r\n250,SPACE,0\r\n300,TAB,1\r\n");
  const ran = run("import", at("play.csv"), "--as", "csv", "--map", at("map.json"), "--kit", "belfry-runner");
  expect(ran.code).toBe(0);
  expect(JSON.parse(ran.stdout)).toMatchObject({
    id: "play",
    kit: "belfry-runner",
    lanes: {
      leap: [
        [6, 1],
        [15, 0],
      ],
    },
  });
  expect(ran.stderr).toEqual([
    `${at("play.csv")}: line 5: “TAB” plays no control here; 1 value was left out`,
  ]);
  writeFileSync(at("wide.csv"), "\ufeffsep=;\r\nt;key;down\r\n100,0;SPACE;0,5\r\n", "utf16le");
  const wide = run("import", at("wide.csv"), "--as", "csv", "--map", at("map.json"));
  expect(JSON.parse(wide.stdout)).toMatchObject({ lanes: { leap: [[6, 0.5]] } });
  const wrong = run("import", at("play.csv"), "--as", "vcd", "--map", at("map.json"));
  expect([wrong.code, wrong.stdout, wrong.stderr.length]).toEqual([2, "", 1]);
  writeFileSync(at("torn.json"), JSON.stringify({ ...map, sort: "dump" }));
  const torn = run("import", at("play.csv"), "--as", "vcd", "--map", at("torn.json"));
  expect([torn.code, torn.stderr[0]]).toEqual([
    2,
    expect.stringContaining("is not part of a value change dump here"),
  ]);
});

test("a run that has tested nothing is no success", () => {
  const demo = "demo/belfry-runner";
  const kit = `${demo}/kit.json`;
  const put = (name: string, checks: readonly object[], more: object = {}) => {
    const path = join(folder, name);
    writeFileSync(
      path,
      JSON.stringify({ format: "moss-tap/checks", version: 1, id: "c", name: "C", checks, ...more }),
    );
    return path;
  };
  const skip = { id: "a", name: "A", on: "*", never: { kind: "performed", id: "scurry" } };
  const empty = join(folder, "empty");
  mkdirSync(empty, { recursive: true });
  writeFileSync(join(empty, "notes.json"), '{"remark": 1}');
  for (const [checks, takes, words] of [
    [put("on.json", [skip]), empty, /no take was judged/],
    [put("off.json", [{ ...skip, off: true }]), demo, /no check is on/],
    [put("other.json", [{ ...skip, on: ["nobody"], off: true }]), demo, /no check is on/],
    [put("idle.json", [skip]), `${demo}/1-clean-climb.json`, /nothing was tested/],
  ] as const) {
    const ran = run("check", kit, checks, takes);
    expect([ran.code, ran.stdout]).toEqual([2, ""]);
    expect(ran.stderr.join(" ")).toMatch(words);
    expect(run("check", kit, checks, takes, "--allow-empty").code).toBe(0);
  }
  const foreign = put("foreign.json", [skip], { kit: "another-kit" });
  expect(run("check", kit, foreign, demo)).toMatchObject({
    code: 2,
    stderr: [expect.stringContaining("another-kit")],
  });
  const impossible = put("impossible.json", [
    { ...skip, never: { kind: "lost", id: "hop", why: "gate:fotting" } },
  ]);
  expect(run("check", kit, impossible, demo).stderr.join()).toMatch(
    /checks\[0\]\.never\.why.*"gate:fotting" can never be/,
  );
});

test("a take that comes twice is judged once, another with its id is a fault; earlier results mark what is new", async () => {
  const { kit, checks } = readDemo("belfry-runner");
  const [first] = writeTakes(1);
  const take = JSON.parse(readFileSync(first!.path, "utf8")) as Take;
  const beside = join(folder, "twice");
  mkdirSync(join(beside, "deeper"), { recursive: true });
  for (const name of ["one.json", "deeper/again.json"])
    writeFileSync(join(beside, name), JSON.stringify(take));
  const everywhere = { ...checks, checks: checks.checks.map(check => ({ ...check, on: "*" as const })) };
  const find = () => {
    const files = listTakeFiles([beside]);
    if ("lines" in files) throw new Error("the folder must read");
    return judgeFiles(kit, everywhere, files, { rates: [], threads: 1, shard: WHOLE });
  };
  expect(await find()).toMatchObject({ takes: 1, notes: [expect.stringContaining("judged once")] });
  writeFileSync(join(beside, "other.json"), JSON.stringify({ ...take, frames: 300 }));
  expect(await find()).toMatchObject({ lines: [expect.stringContaining("is another take")] });
  const results = (oks: readonly boolean[]) =>
    oks.map((ok, k): CheckResult => ({ check: `c${k}`, take: "t", rate: 60, ok }));
  const { results: marked, changes } = compareResults(
    results([true, false, false, true]),
    results([false, true, false]),
  );
  expect(marked.map(({ was }) => was)).toEqual([false, true, false, null]);
  expect(changes).toEqual({ newlyBroken: 1, newlyHeld: 1, stillBroken: 1, gone: 0 });
});

test("trace takes every document that holds takes: a line each, or a file each into a folder", () => {
  const run = (...args: string[]) =>
    spawnSync(process.execPath, [compiled, "trace", "demo/belfry-runner/kit.json", ...args], {
      encoding: "utf8",
    });
  const names = ["1-clean-climb", "2-late-at-every-edge", "3-eaten", "4-slow-twice"];
  const alone = names.map(name => run(`demo/belfry-runner/${name}.json`).stdout);
  const all = run("demo/belfry-runner");
  expect([all.status, all.stdout]).toEqual([0, alone.join("")]);
  expect(all.stderr).toMatch(/left out: .*kit\.json/);
  const takes = names.map(
    name => JSON.parse(readFileSync(`demo/belfry-runner/${name}.json`, "utf8")) as Take,
  );
  const together = join(folder, "rounds.takes.json");
  const document = {
    format: "moss-tap/takes",
    version: 1,
    id: "rounds",
    name: "Rounds",
    kit: "belfry-runner",
  };
  writeFileSync(
    together,
    JSON.stringify({ ...document, takes: [...takes, { ...takes[0], id: "bad", rate: 0 }] }),
  );
  const out = join(folder, "traces");
  const some = run(together, "--out", out);
  expect([some.status, some.stdout]).toEqual([2, ""]);
  expect(some.stderr).toMatch(/takes\[4\]: rate: 0 is not a rate/);
  expect(takes.map(({ id }) => readFileSync(join(out, `${id}.trace.json`), "utf8"))).toEqual(alone);
  expect(run("demo/belfry-runner/checks.json").status).toBe(2);
});
