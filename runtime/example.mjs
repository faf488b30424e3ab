// Runs a kit in a fixed-step game loop: keys in, moves out. Open it in a page beside kit.json, or use it as a
// template.
import { loadKit } from "./moss-tap-runtime.mjs";

const loaded = loadKit(await (await fetch("kit.json")).json());
if (!loaded.ok) throw new Error(JSON.stringify(loaded.faults));
const { runtime } = loaded;
const down = {};
const keys = { Space: "leap", KeyA: "left", KeyD: "right" };
addEventListener("keydown", event => (down[keys[event.code]] = true));
addEventListener("keyup", event => (down[keys[event.code]] = false));

const frameMs = 1000 / runtime.rate;
let behindMs = 0;
let lastMs = performance.now();
requestAnimationFrame(function loop(nowMs) {
  behindMs = Math.min(250, behindMs + nowMs - lastMs);
  lastMs = nowMs;
  for (; behindMs >= frameMs; behindMs -= frameMs) {
    // Report the gates your bodies hold open, such as ground below the feet.
    const events = runtime.step({ controls: down, gates: { footing: true } });
    for (const event of events) if (event.kind === "performed") console.log(event.f, event.id, event.by);
  }
  requestAnimationFrame(loop);
});
