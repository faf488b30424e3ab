// A page that a person plays by keys while it is linked: its own body and its own picture, moves by the rules.
import { joinLink } from "../runtime/moss-tap-link.mjs";
import { createBody } from "./body.mjs";

const FRAME_MS = 1000 / 60;
const TILE_PX = 36;
/** After a longer pause, such as a hidden window, the game goes on from now. */
const MAX_BEHIND_MS = 250;
const KEYS = {
  ArrowLeft: "left",
  KeyA: "left",
  ArrowRight: "right",
  KeyD: "right",
  Space: "leap",
  KeyJ: "crouch",
  KeyK: "brace",
};
const STATES = {
  joining: "joining …",
  playing: "playing: every press is on the tape",
  closed: "ended",
  refused: "refused",
};

const course = createBody();
const canvas = document.getElementById("course");
const state = document.getElementById("state");
const last = document.getElementById("last");
const down = new Set();
let link;

document.getElementById("code").value = new URLSearchParams(location.search).get("code") ?? "";

document.getElementById("join").addEventListener("submit", event => {
  event.preventDefault();
  link?.close();
  const player = document.getElementById("player").value.trim();
  link = joinLink({
    url: `${location.origin.replace(/^http/, "ws")}/link`,
    code: document.getElementById("code").value,
    name: "A game to link",
    device: "keyboard",
    ...(player === "" ? {} : { player }),
    onState: next => (state.textContent = STATES[next]),
    onFault: ({ message }) => (last.textContent = message),
  });
  document.activeElement.blur();
});

const isTyping = () => document.activeElement?.tagName === "INPUT";
addEventListener("keydown", event => {
  const control = KEYS[event.code];
  if (control === undefined || isTyping() || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  down.add(control);
});
addEventListener("keyup", event => down.delete(KEYS[event.code]));
addEventListener("blur", () => down.clear());

/** Plays one frame: sends what is held and where the body is, and performs what the rules answer. */
function step() {
  const controls = Object.fromEntries([...down].map(control => [control, true]));
  const events = link?.step({ controls, gates: course.gates() }) ?? [];
  const moves = events.filter(({ kind }) => kind === "performed");
  for (const { id, f, by } of moves) last.textContent = `${f}f: ${id}, ${by}`;
  const way = (down.has("right") ? 1 : 0) - (down.has("left") ? 1 : 0);
  course.step(way, moves.at(-1)?.id);
}

function draw() {
  const context = canvas.getContext("2d");
  const style = getComputedStyle(document.body);
  const { body, beams } = course;
  const left = body.x - canvas.width / TILE_PX / 2;
  const toX = x => (x - left) * TILE_PX;
  const toY = y => canvas.height - 120 - y * TILE_PX;
  context.fillStyle = style.getPropertyValue("--paper");
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.fillStyle = style.getPropertyValue("--line");
  for (const { from, to, height } of beams)
    context.fillRect(toX(from), toY(height), (to - from) * TILE_PX, 14);
  context.fillStyle = style.getPropertyValue("--moss");
  context.beginPath();
  context.ellipse(toX(body.x), toY(body.y) - 20, 14, 20, 0, 0, Math.PI * 2);
  context.fill();
}

let behindMs = 0;
let lastMs = performance.now();
requestAnimationFrame(function loop(nowMs) {
  behindMs = Math.min(MAX_BEHIND_MS, behindMs + nowMs - lastMs);
  lastMs = nowMs;
  for (; behindMs >= FRAME_MS; behindMs -= FRAME_MS) step();
  draw();
  requestAnimationFrame(loop);
});
