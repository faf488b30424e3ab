import { readFileSync } from "node:fs";
import { parseRules } from "#stage";
import { openKit, openTab } from "../app/tests/testWorld";
import { createTapeBuilder } from "../app/tape/model/buildTape";

/**
 * Simulates an hour with the pad awake at eight presses per second: memory used, and the cost of a frame at
 * its end. Run by `npm run session`, which exposes the garbage collector.
 */
const FRAME_MS = 1000 / 60;
const MINUTE = 3600;
const HOUR = 60 * MINUTE;
const EVERY = 60 / 8;
const KEYS = ["key:Space", "key:ShiftLeft", "key:KeyK"];

const read = parseRules(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
if (!read.ok) throw new Error("the demo must read");
const tab = openTab();
await openKit(tab, read.value.kit);
tab.pad.wake(false);

function heapMb(): number {
  globalThis.gc?.();
  globalThis.gc?.();
  return process.memoryUsage().heapUsed / 2 ** 20;
}

let built: ReturnType<typeof createTapeBuilder> | undefined;
let slowest = 0;
/** Plays a range of frames; returns the time per frame in ms. */
function play(from: number, to: number): number {
  const began = performance.now();
  for (let frame = from; frame < to; frame++) {
    const began = performance.now();
    const press = Math.floor(frame / EVERY);
    if (press !== Math.floor((frame - 1) / EVERY)) {
      const code = KEYS[press % KEYS.length]!;
      const at = tab.timers.nowMs() + FRAME_MS / 2;
      tab
        .page()!
        .report({ code, value: Math.floor(press / KEYS.length) % 2 === 0 ? 1 : 0, isRepeat: false }, at);
    }
    tab.turn(FRAME_MS);
    const { session } = tab.pad.getState();
    built ??= createTapeBuilder(session!.rules);
    built.extend(session!.trace);
    slowest = Math.max(slowest, performance.now() - began);
  }
  return (performance.now() - began) / (to - from);
}

const firstMs = play(0, MINUTE);
const afterMinute = heapMb();
play(MINUTE, HOUR - MINUTE);
slowest = 0;
const lastMs = play(HOUR - MINUTE, HOUR);
const afterHour = heapMb();
const { trace } = tab.pad.getState().session!;
const traceMb = (trace.frame.byteLength + trace.at.byteLength + trace.payload.byteLength) / 2 ** 20;

console.log(`frames played ${tab.pad.getState().frame}, notes ${trace.count}`);
console.log(
  `a frame: ${firstMs.toFixed(3)} ms in the first minute, ${lastMs.toFixed(3)} ms in the last, slowest there ${slowest.toFixed(1)} ms`,
);
console.log(
  `heap: ${afterMinute.toFixed(1)} MB after a minute, ${afterHour.toFixed(1)} MB after an hour; the trace alone ${traceMb.toFixed(1)} MB`,
);
process.exit(0);
