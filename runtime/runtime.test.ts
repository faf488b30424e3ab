import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { gzipSync } from "node:zlib";
import { unzipSync } from "fflate";
import { afterAll, beforeAll, expect, test } from "vitest";
import { evaluate, formatTrace, parseChecks, parseKit, parseTake, type Kit, type Take } from "#core";
import { EXPORT_FORMATS, NO_PARTS } from "#handover";
import { compileRules } from "#stage";
import { bundleRuntime } from "./bundle.mjs";
import { loadKit, type RuntimeInput } from "./runtime";

const folder = mkdtempSync(join(tmpdir(), "moss-tap-runtime-"));
afterAll(() => rmSync(folder, { recursive: true }));
let text = "";
beforeAll(async () => {
  text = await bundleRuntime();
});

function readDemo(name: string) {
  const read = (file: string): unknown => JSON.parse(readFileSync(`demo/${name}/${file}`, "utf8"));
  const kit = parseKit(read("kit.json"));
  const checks = parseChecks(read("checks.json"));
  const takes = readdirSync(`demo/${name}`)
    .filter(file => /^\d/.test(file))
    .map(file => parseTake(read(file)));
  if (!kit.ok || !checks.ok || !takes.every(take => take.ok)) throw new Error(`${name} does not read`);
  return { kit: kit.value, checks: checks.value.checks, takes: takes.map(take => take.value), layouts: [] };
}

const DEMOS = ["belfry-runner", "clapper-duel", "rope-catch"];

test("the runtime is one module without imports, of at most 32 KB packed", () => {
  expect(gzipSync(text, { level: 9 }).length).toBeLessThan(32 * 1024);
  const asks =
    /\bimport\b\s*[{*"'(]|\brequire\(|process\.|document\.|window\.|globalThis|new Date|Date\.|Math\.random/;
  expect(asks.exec(text)?.[0]).toBeUndefined();
});

test.each(DEMOS)(
  "the vectors of %s are run in an empty folder by plain Node, and an altered one is reported",
  name => {
    const form = EXPORT_FORMATS.find(({ id }) => id === "vectors")!;
    const files = unzipSync(form.files(readDemo(name), NO_PARTS)[0]!.bytes);
    const own = join(folder, name);
    for (const [file, bytes] of Object.entries(files)) {
      mkdirSync(dirname(join(own, file)), { recursive: true });
      writeFileSync(join(own, file), bytes);
    }
    writeFileSync(join(own, "moss-tap-runtime.mjs"), text);
    writeFileSync(join(own, "run-vectors.mjs"), readFileSync("runtime/run-vectors.mjs"));
    const run = () => spawnSync("node", ["run-vectors.mjs"], { cwd: own, encoding: "utf8" });
    const ran = run();
    expect(ran.stderr).toBe("");
    const lines = ran.stdout.split("\n").filter(Boolean);
    const oks = (start: string) => lines.filter(line => line.startsWith(`ok ${start}/`)).length;
    expect(oks("bare")).toBe(4);
    expect(oks("boundaries")).toBeGreaterThan(20);
    expect(lines.slice(oks("bare") + oks("boundaries"))).toEqual(["all as they must be"]);
    expect(ran.status).toBe(0);
    const index = JSON.parse(readFileSync(join(own, "index.json"), "utf8")) as {
      vectors: readonly { trace: string }[];
    };
    const [first] = index.vectors;
    // The others were run above.
    writeFileSync(join(own, "index.json"), JSON.stringify({ ...index, vectors: [first] }));
    const trace = JSON.parse(readFileSync(join(own, first!.trace), "utf8")) as { events: { f: number }[] };
    trace.events[3]!.f++;
    writeFileSync(join(own, first!.trace), JSON.stringify(trace));
    const tampered = run();
    expect(tampered.status).toBe(1);
    expect(tampered.stdout).toMatch(/^not ok bare\/.* came, where it must be/m);
  },
);

/**
 * Returns the controls that are down on each frame of a take at its own rate, with every change on a frame.
 */
function inputsOf(take: Take): RuntimeInput[] {
  const controls: Record<string, number> = {};
  return Array.from({ length: take.frames }, (_, f) => {
    for (const [id, lane] of Object.entries(take.lanes))
      for (const [x, value] of lane) if (Math.ceil(x - 1e-6) === f) controls[id] = value;
    return { controls: { ...controls } };
  });
}

test("stepping equals a run, and restoring a saved state and continuing gives the same again", () => {
  const { kit, takes } = readDemo("clapper-duel");
  const { stage: _stage, ...bare } = kit;
  const [take] = takes;
  const loaded = loadKit(JSON.parse(JSON.stringify(bare)));
  const compiled = compileRules(bare as Kit);
  if (!loaded.ok || !compiled.ok) throw new Error("the kit must load");
  const { runtime } = loaded;
  const inputs = inputsOf(take!);
  const whole = inputs.flatMap(input => runtime.step(input));
  const { events } = formatTrace(compiled.value.program, evaluate(compiled.value.program, take!));
  expect(whole).toEqual(events);
  expect(whole.length).toBeGreaterThan(20);
  expect(runtime.frame).toBe(take!.frames - 1);
  const again = loadKit(bare);
  if (!again.ok) throw new Error("the kit must load");
  const before = inputs.slice(0, 47).flatMap(input => again.runtime.step(input));
  const saved = again.runtime.save();
  inputs.slice(47, 200).forEach(input => again.runtime.step(input));
  again.runtime.restore(saved);
  expect(again.runtime.frame).toBe(46);
  const after = inputs.slice(47).flatMap(input => again.runtime.step(input));
  expect([...before, ...after]).toEqual(whole);
});

test("a kit with faults is refused with codes and places; gates and analog values have effect", () => {
  expect(loadKit(null)).toMatchObject({ ok: false });
  expect(loadKit({ format: "moss-tap/kit", version: 1 })).toMatchObject({
    ok: false,
    faults: expect.arrayContaining([expect.objectContaining({ code: "missing" })]) as unknown,
  });
  const loaded = loadKit({
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: [{ id: "a", name: "A", bindings: [] }],
    gates: [{ id: "g", name: "G" }],
    patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
    moves: [{ id: "m", name: "M", pattern: "p", needs: [{ gate: "g" }] }],
  });
  if (!loaded.ok) throw new Error("the kit must load");
  const { runtime } = loaded;
  expect(runtime.step({ controls: { a: 0.45 } })).toEqual([]);
  expect(runtime.step({ controls: { a: 0.5 } }).map(({ kind }) => kind)).toEqual(["fired", "lost"]);
  runtime.step({ controls: {} });
  const kinds = runtime
    .step({ controls: { a: true, strange: true }, gates: { g: true, none: true } })
    .map(({ kind }) => kind);
  expect(kinds).toEqual(["gate", "fired", "performed"]);
  expect([runtime.isOpen("g"), runtime.isOpen("none")]).toEqual([true, false]);
});
