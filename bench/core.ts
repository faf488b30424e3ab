import { readFileSync } from "node:fs";
import { cpus, totalmem } from "node:os";
import { Bench } from "tinybench";
import {
  createFrameInput,
  createInputCursor,
  createState,
  createTrace,
  formatTrace,
  parseKit,
  parseTake,
  readTake,
  run,
  runOn,
  step,
  writeAt,
  type InputColumns,
  type Program,
} from "#core";
import { compileRules, runRules } from "#stage";
import { runByHand, runByMachines, type Counts } from "./rivals";
import {
  lengthenTake,
  makeLargeKit,
  makePromptedTake,
  makeTake,
  mustCompile,
  prepare,
  PROMPTED_KIT,
  SMALL_KIT,
} from "./scenes";
import { benchStudies } from "./studies";

const HOUR = 216_000;

function medianMs(times: number, work: () => void): number {
  const taken = Array.from({ length: times }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

function line(what: string, value: string, goal = ""): void {
  console.log(`${what.padEnd(62)} ${value.padStart(14)}   ${goal}`);
}

function traceMegabytes(program: Program, columns: InputColumns): number {
  const trace = run(program, columns);
  const { frame, kind, subject, at, payload } = trace;
  return (
    [frame, kind, subject, at, payload].reduce((sum, column) => sum + column.byteLength, 0) / 1024 / 1024
  );
}

function benchHour(): void {
  const { program, columns } = prepare(makeLargeKit(1), makeTake(HOUR));
  run(program, columns);
  line(
    "one hour at 60 Hz, 30 patterns, 20 moves",
    `${medianMs(7, () => run(program, columns)).toFixed(0)} ms`,
    "goal under 400 ms",
  );
  line("  presses a second", (columns.controlFrame.length / 2 / 3600).toFixed(1));
  line("  its trace", `${traceMegabytes(program, columns).toFixed(1)} MB`, "goal under 64 MB");
}

function benchLinear(): void {
  const base = { frames: 0, rules: 0 };
  for (const times of [1, 4, 16]) {
    const byFrames = prepare(makeLargeKit(1), makeTake(13_500 * times));
    const byRules = prepare(makeLargeKit(times), makeTake(13_500));
    run(byFrames.program, byFrames.columns);
    run(byRules.program, byRules.columns);
    const framesMs = medianMs(7, () => run(byFrames.program, byFrames.columns));
    const rulesMs = medianMs(7, () => run(byRules.program, byRules.columns));
    if (times === 1) Object.assign(base, { frames: framesMs, rules: rulesMs });
    line(`${times}× frames`, `${framesMs.toFixed(1)} ms`, `${(framesMs / base.frames).toFixed(1)}×`);
    line(`${times}× rules`, `${rulesMs.toFixed(1)} ms`, `${(rulesMs / base.rules).toFixed(1)}×`);
  }
}

function benchDrag(): void {
  const kit = parseKit(JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")));
  const take = parseTake(JSON.parse(readFileSync("e2e/belfry/sloppy-climb.json", "utf8")));
  if (!kit.ok || !take.ok) throw new Error("the demo must read");
  const minute = lengthenTake(take.value, 3600);
  let frames = 4;
  const work = () => {
    frames = 4 + ((frames + 1) % 12);
    const program = mustCompile(writeAt(kit.value, ["moves", 0, "buffer"], `${frames}f`));
    run(program, readTake(program, minute));
  };
  medianMs(30, work);
  line(
    "one minute of Belfry Runner after one number changed",
    `${medianMs(101, work).toFixed(2)} ms`,
    "goal under 4 ms",
  );
}

async function benchSmall(): Promise<void> {
  const { program, columns } = prepare(SMALL_KIT, makeTake(36_000, 5));
  const events = formatTrace(program, run(program, columns)).events;
  const count = (kind: string, id: string) => events.filter(e => e.kind === kind && e.id === id).length;
  const own: Counts = {
    holds: count("fired", "hold"),
    doubles: count("fired", "double"),
    hops: count("performed", "hop"),
    lost: count("lost", "hop"),
  };
  for (const other of [runByHand(columns), runByMachines(columns)]) {
    if (JSON.stringify(other) !== JSON.stringify(own))
      throw new Error(`not the same job: ${JSON.stringify(other)} and ${JSON.stringify(own)}`);
  }
  const bench = new Bench({ time: 600, warmupTime: 200 });
  bench
    .add("core", () => void run(program, columns))
    .add("hand", () => void runByHand(columns))
    .add("machines", () => void runByMachines(columns));
  await bench.run();
  const nsPerFrame = (name: string) => {
    const result = bench.getTask(name)!.result as { latency?: { p50: number } };
    return (result.latency!.p50 * 1e6) / columns.frames;
  };
  const [core, hand, machines] = [nsPerFrame("core"), nsPerFrame("hand"), nsPerFrame("machines")];
  line("the small job (hold, double tap, buffered move): core", `${core.toFixed(1)} ns/frame`);
  line(
    "  by hand-written timers and flags",
    `${hand.toFixed(1)} ns/frame`,
    `core takes ${(core / hand).toFixed(1)}×, goal at most 2×`,
  );
  line(
    "  by a general state-machine library",
    `${machines.toFixed(0)} ns/frame`,
    `core is ${(machines / core).toFixed(0)}× faster, goal at least 20×`,
  );
}

function benchQuiet(): void {
  const program = mustCompile(makeLargeKit(1));
  const state = createState(program);
  const trace = createTrace(60);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const quiet = (frames: number) => {
    for (let f = 0; f < frames; f++) step(program, state, input, trace);
  };
  quiet(100_000);
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  const began = performance.now();
  quiet(1_000_000);
  const ns = performance.now() - began;
  const bytes = process.memoryUsage().heapUsed - before;
  line("a quiet frame of the large kit", `${ns.toFixed(0)} ns`);
  line("  allocated over a million quiet frames", `${(bytes / 1024).toFixed(0)} KB`, "goal none");
}

/**
 * Measures an hour of timed prompts, one per second, each answered by a press: its last quarter against its
 * first.
 */
function benchPrompts(): void {
  const { program, columns } = prepare(PROMPTED_KIT, makePromptedTake(HOUR));
  const quarters = (): number[] => {
    const state = createState(program);
    const cursor = createInputCursor(program, columns);
    const trace = createTrace(60);
    return [1, 2, 3, 4].map(quarter => {
      const began = performance.now();
      runOn(program, state, cursor, columns, trace, (HOUR * quarter) / 4);
      return performance.now() - began;
    });
  };
  quarters();
  const runs = Array.from({ length: 9 }, quarters);
  const median = (q: number) => runs.map(run => run[q]!).sort((a, b) => a - b)[4]!;
  line("one hour with a prompt a second: its first quarter", `${median(0).toFixed(1)} ms`);
  line(
    "  its last quarter",
    `${median(3).toFixed(1)} ms`,
    `${(median(3) / median(0)).toFixed(2)}×, goal at most 1.2×`,
  );
}

/** Measures a minute of the runner demo with its stage, against the same rules and take without it. */
function benchStage(): void {
  const kit = parseKit(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
  const take = parseTake(JSON.parse(readFileSync("demo/belfry-runner/2-late-at-every-edge.json", "utf8")));
  if (!kit.ok || !take.ok) throw new Error("the demo must read");
  const staged = compileRules(kit.value);
  if (!staged.ok) throw new Error("the demo must compile");
  const { program } = staged.value;
  const columns = readTake(program, lengthenTake(take.value, 3600));
  const on = () => runRules(staged.value, columns);
  const off = () => run(program, columns);
  medianMs(60, on);
  medianMs(60, off);
  const [onMs, offMs] = [medianMs(201, on), medianMs(201, off)];
  line("one minute of the shipped Belfry Runner without its stage", `${offMs.toFixed(2)} ms`);
  line(
    "  on its stage",
    `${onMs.toFixed(2)} ms`,
    `${(onMs / offMs).toFixed(1)}×, goal at most 3×, and under 1.5 ms`,
  );
}

console.log(
  `${cpus()[0]?.model.trim()}, ${cpus().length} cores, ${(totalmem() / 2 ** 30).toFixed(0)} GB, Node ${process.version}\n`,
);
benchHour();
benchLinear();
benchDrag();
benchPrompts();
benchStage();
await benchSmall();
benchQuiet();
benchStudies();
