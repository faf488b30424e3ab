import { browserPads } from "../input/gamepads";
import { listenToPage } from "../input/pageEvents";
import { openPlayerPage, type Played } from "./playerPage";
import { createRounds, type RoundStore } from "./rounds";

/** Returns the browser's localStorage; undefined if the page may not use it, as in a sandbox. */
function smallStore(): RoundStore | undefined {
  try {
    return localStorage;
  } catch {
    console.info("This page may keep nothing here: rounds stay until it is left.");
    return undefined;
  }
}

function save(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: "application/json" }));
  Object.assign(document.createElement("a"), { href: url, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

const night = matchMedia("(prefers-color-scheme: dark)");
const dress = () => (document.documentElement.dataset.theme = night.matches ? "night" : "day");
dress();

/** Calls back when the size, the theme or the fonts change. */
function onLooks(onChange: () => void): void {
  night.addEventListener("change", () => {
    dress();
    onChange();
  });
  new ResizeObserver(onChange).observe(document.getElementById("stage")!);
  void document.fonts.ready.then(onChange);
}

// The data was written by the exporter from a valid kit.
const played = JSON.parse(document.getElementById("played")!.textContent) as Played;
openPlayerPage(played, {
  rounds: createRounds(played.kit, smallStore()),
  save,
  onLooks,
  nowMs: () => performance.now(),
  nextTurn: run => requestAnimationFrame(run),
  listen: listenToPage,
  readPads: browserPads(),
});
