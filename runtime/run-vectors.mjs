// Runs the test vectors beside this file through the runtime beside it, and reports for each whether every
// event is as expected. Usage: node run-vectors.mjs [folder of the vectors]; or, served together with them,
// as a module script of a page.
import { loadKit } from "./moss-tap-runtime.mjs";

const isNode = typeof process === "object" && typeof document === "undefined";
const folder = (isNode && process.argv[2]) || ".";

/** Reads a document of the vectors, from disk or relative to the page. */
async function read(name) {
  if (!isNode) return (await fetch(new URL(name, import.meta.url))).json();
  const { readFile } = await import("node:fs/promises");
  return JSON.parse(await readFile(`${folder}/${name}`, "utf8"));
}

/** Prints a line on the console and, in a page, on it. */
function say(line) {
  console.log(line);
  if (!isNode) document.body.append(Object.assign(document.createElement("p"), { textContent: line }));
}

/** Returns the frame of a kit on which a position of a take lands. */
const land = (x, take, rate) => Math.ceil((x * rate) / take.rate - 1e-6);

/**
 * Returns, for each frame on which a control changes, whether it is down from then on. Each change has a
 * frame of its own, so that no press is lost.
 */
function readControl(lane, control, take, rate) {
  const pressAt = control.pressAt ?? 0.5;
  const releaseAt = control.releaseAt ?? Math.min(0.4, pressAt);
  const changes = new Map();
  let isDown = false;
  let last = -1;
  for (const [x, value] of lane) {
    const now = isDown ? value >= releaseAt : value >= pressAt;
    if (now === isDown) continue;
    isDown = now;
    last = Math.max(land(x, take, rate), last + 1);
    changes.set(last, isDown);
  }
  return changes;
}

/** Returns the values of a lane by the frame on which they land; the last of several on one frame counts. */
const readLane = (lane, take, rate) => new Map(lane.map(([x, value]) => [land(x, take, rate), value]));

async function runVector({ kit: kitFile, take: takeFile, trace: traceFile }) {
  const [kit, take, { events: wanted }] = await Promise.all([kitFile, takeFile, traceFile].map(read));
  const loaded = loadKit(kit, { phases: true });
  if (!loaded.ok) return `the kit was not loaded: ${JSON.stringify(loaded.faults)}`;
  const { runtime } = loaded;
  const { rate } = runtime;
  const lanes = kit.controls.map(control => [
    control.id,
    readControl(take.lanes[control.id] ?? [], control, take, rate),
  ]);
  const gates = Object.entries(take.gates ?? {}).map(([id, lane]) => [id, readLane(lane, take, rate)]);
  const speed = readLane(take.speed ?? [], take, rate);
  const controls = {};
  const opened = {};
  let speedPercent = 100;
  let at = 0;
  for (let f = 0; f < land(take.frames, take, rate); f++) {
    for (const [id, changes] of lanes) if (changes.has(f)) controls[id] = changes.get(f);
    for (const [id, values] of gates) if (values.has(f)) opened[id] = values.get(f) === 1;
    speedPercent = speed.get(f) ?? speedPercent;
    for (const event of runtime.step({ controls, gates: opened, speedPercent })) {
      const is = JSON.stringify(event);
      const must = JSON.stringify(wanted[at++]);
      if (is !== must) return `frame ${f}: ${is} came, where it must be ${must ?? "nothing more"}`;
    }
  }
  return at === wanted.length ? "" : `${JSON.stringify(wanted[at])} did not come`;
}

let failed = 0;
for (const vector of (await read("index.json")).vectors) {
  const why = await runVector(vector);
  if (why) failed++;
  say(`${why ? "not ok" : "ok"} ${vector.take}${why ? `: ${why}` : ""}`);
}
say(failed > 0 ? `${failed} not as they must be` : "all as they must be");
if (isNode) process.exitCode = failed > 0 ? 1 : 0;
