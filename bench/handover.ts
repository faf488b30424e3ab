import { createReadStream, mkdtempSync, openSync, readFileSync, rmSync, statSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { parseMapping, parseTake, run, type Take } from "#core";
import {
  EXPORT_FORMATS,
  feedTable,
  NO_PARTS,
  packFiles,
  parseTable,
  readWhole,
  type Handover,
} from "#handover";
import { parseRules } from "#stage";
import { bundleRuntime } from "../runtime/bundle.mjs";
import type { loadKit as LoadKit, Runtime } from "../runtime/runtime";
import { lengthenTake, makeLargeKit, makeTake, prepare } from "./scenes";

const TAKES = 200;
const MINUTE = 3600;
const TABLE_BYTES = 100e6;
const HOUR = 216_000;

function printFigure(what: string, found: string, goal = ""): void {
  console.log(`${what.padEnd(66)} ${found.padStart(14)}   ${goal}`);
}

const secondsOf = async (work: () => unknown): Promise<number> => {
  const began = performance.now();
  await work();
  return (performance.now() - began) / 1000;
};

/** Returns the demo's kit with 200 takes of a minute. */
function makeHandover(): Handover {
  const read = (name: string) =>
    JSON.parse(readFileSync(`demo/belfry-runner/${name}.json`, "utf8")) as unknown;
  const rules = parseRules(read("kit"));
  const take = parseTake(read("2-late-at-every-edge"));
  if (!rules.ok || !take.ok) throw new Error("the demo must read");
  const minute = lengthenTake(take.value, MINUTE);
  const takes = Array.from({ length: TAKES }, (_, n): Take => ({
    ...minute,
    id: `t${n}`,
    name: `Take ${n}`,
  }));
  return { kit: rules.value.kit, takes, layouts: [], checks: [] };
}

async function benchPacks(): Promise<void> {
  const handover = makeHandover();
  const everything = EXPORT_FORMATS.find(({ id }) => id === "everything")!;
  let packed = packFiles([handover.kit, ...handover.takes]);
  const written = await secondsOf(() => (packed = packFiles([handover.kit, ...handover.takes])));
  printFigure(`a zip of ${TAKES} takes of a minute, written`, `${written.toFixed(2)} s`, "goal under 2 s");
  const read = await secondsOf(() => readWhole(packed.name, packed.bytes));
  printFigure("  read", `${read.toFixed(2)} s`, "goal under 2 s");
  let all = packed;
  const made = await secondsOf(() => ([all] = everything.files(handover, NO_PARTS) as [typeof all]));
  printFigure("  everything of it, run for vectors and waveforms, in one zip", `${made.toFixed(2)} s`);
  printFigure("  its size", `${(all.bytes.length / 1e6).toFixed(1)} MB`);
  printFigure(
    "  read",
    `${(await secondsOf(() => readWhole(all.name, all.bytes))).toFixed(2)} s`,
    "goal under 2 s",
  );
}

/** Writes a table of frames of so many bytes, with one control changing now and then. */
function writeTable(path: string): void {
  const file = openSync(path, "w");
  const held = [0, 0, 0, 0, 0];
  writeSync(file, "t,leap,left,right,crouch,brace\n");
  let written = 0;
  for (let frame = 0; written < TABLE_BYTES;) {
    let piece = "";
    for (const until = frame + 20_000; frame < until; frame++) {
      if (frame % 37 === 0) held[(frame / 37) % 5] = 1 - held[(frame / 37) % 5]!;
      piece += `${(frame / 60).toFixed(6)},${held.join()}\n`;
    }
    written += piece.length;
    writeSync(file, piece);
  }
}

async function benchTable(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "moss-tap-bench-"));
  const path = join(folder, "table.csv");
  try {
    writeTable(path);
    const names = ["leap", "left", "right", "crouch", "brace"];
    const controls = Object.fromEntries(names.map(name => [name, name]));
    const head = { format: "moss-tap/mapping", version: 1, sort: "frames", rate: 60, unit: "s", time: "t" };
    const mapping = parseMapping({ ...head, controls });
    if (!mapping.ok) throw new Error("the mapping must read");
    const feed = feedTable(mapping.value);
    globalThis.gc?.();
    let most = 0;
    const look = () => {
      most = Math.max(most, process.memoryUsage().rss);
      return Promise.resolve();
    };
    const took = await secondsOf(() =>
      parseTable(createReadStream(path, "utf8"), new Uint8Array(), feed, look),
    );
    const read = feed.finish({ id: "t", name: "T" });
    if (!read.ok) throw new Error("the table must read");
    printFigure(
      `a table of ${(statSync(path).size / 1e6).toFixed(0)} MB read`,
      `${took.toFixed(1)} s`,
      "goal under 10 s",
    );
    printFigure("  memory at most", `${(most / 1e6).toFixed(0)} MB`, "goal under 500 MB");
    printFigure("  frames of its take", String(read.value.take.frames));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Measures the exported runtime against the core on the same input. */
async function benchRuntime(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "moss-tap-bench-"));
  try {
    const path = join(folder, "runtime.mjs");
    const file = openSync(path, "w");
    writeSync(file, await bundleRuntime());
    const { loadKit } = (await import(pathToFileURL(path).href)) as { loadKit: typeof LoadKit };
    const kit = makeLargeKit(1);
    const take = makeTake(HOUR);
    const { program, columns } = prepare(kit, take);
    const inputs = inputsOf(take);
    const load = (): Runtime => {
      const loaded = loadKit(kit);
      if (!loaded.ok) throw new Error("the kit must load");
      return loaded.runtime;
    };
    const play = () => {
      const runtime = load();
      let events = 0;
      for (const controls of inputs) events += runtime.step({ controls }).length;
      return events;
    };
    const medianOf = async (work: () => unknown) => {
      const took: number[] = [];
      for (let n = 0; n < 7; n++) took.push(await secondsOf(work));
      return took.sort((a, b) => a - b)[3]!;
    };
    const core = await medianOf(() => run(program, columns));
    const own = await medianOf(play);
    const ns = (seconds: number) => `${((seconds * 1e9) / HOUR).toFixed(0)} ns/frame`;
    printFigure("an hour of the large kit by the core", ns(core));
    printFigure(
      "  by the runtime, a step a frame with its events",
      ns(own),
      `${(own / core).toFixed(2)}× the core`,
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Returns the controls that are down on each frame of a take; the same object while nothing changes. */
function inputsOf(take: Take): Record<string, number>[] {
  const changes = new Map<number, [string, number][]>();
  for (const [id, lane] of Object.entries(take.lanes))
    for (const [x, value] of lane) {
      const at = Math.ceil(x - 1e-6);
      changes.set(at, [...(changes.get(at) ?? []), [id, value]]);
    }
  let now: Record<string, number> = {};
  return Array.from({ length: take.frames }, (_, frame) => {
    const due = changes.get(frame);
    if (due) now = { ...now, ...Object.fromEntries(due) };
    return now;
  });
}

await benchPacks();
await benchTable();
await benchRuntime();
