// npm run bench:link -- [--minutes N] [--page]: the live link over loopback, against the served build.
import { once } from "node:events";
import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { quantileSorted } from "simple-statistics";
import { WebSocket } from "ws";
import { SUBPROTOCOL, type GameFrame } from "#link";
import { openBrowser, press, startApp, textOf, waitFor, openDemo } from "../e2e/browser";

const { values } = parseArgs({
  options: { minutes: { type: "string", default: "10" }, page: { type: "boolean" } },
});
const KIT = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as { rate: number };

interface Talker {
  readonly socket: WebSocket;
  readonly say: (message: object) => void;
  /** Resolves with the next message of a sort. */
  readonly next: (t: string) => Promise<Record<string, unknown>>;
  onMessage: (message: Record<string, unknown>) => void;
}

async function connect(address: string): Promise<Talker> {
  const socket = new WebSocket(`${address.replace("http", "ws")}/link`, SUBPROTOCOL, { maxPayload: 0 });
  const waiting = new Map<string, (message: Record<string, unknown>) => void>();
  const talker: Talker = {
    socket,
    say: message => socket.send(JSON.stringify(message)),
    next: t => new Promise(resolve => waiting.set(t, resolve)),
    onMessage: () => undefined,
  };
  socket.on("message", (data: Buffer) => {
    const message = JSON.parse(data.toString()) as Record<string, unknown>;
    waiting.get(message.t as string)?.(message);
    waiting.delete(message.t as string);
    talker.onMessage(message);
  });
  await once(socket, "open");
  return talker;
}

async function openLink(address: string, kit: object) {
  const host = await connect(address);
  const opened = host.next("opened");
  host.say({ t: "open", kit, revision: 1 });
  return { host, code: (await opened).code as string };
}

async function join(address: string, code: string, rate: number, asks: boolean) {
  const game = await connect(address);
  const welcome = game.next("welcome");
  game.say({ t: "join", version: 1, code, name: "Bench", rate, asks });
  await welcome;
  return game;
}

/** A leap every half second, and ground for most of the time. */
function frameAt(f: number): GameFrame {
  const beat = f % 30;
  const set = beat === 0 || beat === 5 ? { set: { leap: beat === 0 } } : {};
  const gates = beat === 1 || beat === 20 ? { gates: { footing: beat === 20 } } : {};
  return { f, ...set, ...gates };
}

/** Calls `step` for each frame that is due by the clock; resolves after the last. */
function play(rate: number, frames: number, step: (f: number) => void): Promise<void> {
  const beganMs = performance.now();
  let f = 0;
  return new Promise(resolve => {
    const timer = setInterval(
      () => {
        const due = Math.min(frames, Math.floor(((performance.now() - beganMs) * rate) / 1000));
        while (f < due) step(f++);
        if (f < frames) return;
        clearInterval(timer);
        resolve();
      },
      rate > 100 ? 1 : 4,
    );
  });
}

/** Returns the resident memory of a process, in MB. */
function memoryOf(pid: number): number {
  const kilobytes = /VmRSS:\s*(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1];
  return Math.round(Number(kilobytes) / 1024);
}

const row = (what: string, found: string) => console.log(`| ${what.padEnd(52)} | ${found} |`);

/** Plays at the kit's rate and reports the time from a frame to its events. */
async function measureAnswers(
  address: string,
  code: string,
  seconds: number,
  onSent: (f: number, atMs: number) => void = () => undefined,
): Promise<string> {
  const game = await join(address, code, KIT.rate, true);
  const sentMs: number[] = [];
  const tookMs: number[] = [];
  game.onMessage = ({ t, f }) => {
    if (t === "events") tookMs.push(performance.now() - sentMs[f as number]!);
  };
  const frames = seconds * KIT.rate;
  await play(KIT.rate, frames, f => {
    sentMs[f] = performance.now();
    onSent(f, Date.now());
    game.say({ t: "frame", ...frameAt(f) });
  });
  for (let n = 0; n < 200 && tookMs.length < frames; n++)
    await new Promise(resolve => setTimeout(resolve, 10));
  game.socket.close();
  const sorted = tookMs.slice().sort((a, b) => a - b);
  const at = (share: number) => `${quantileSorted(sorted, share).toFixed(2)} ms`;
  return `${at(0.5)} median, ${at(0.99)} at 99 %, ${frames - tookMs.length} of ${frames} lost`;
}

/** Plays at 1000 frames a second and counts what reaches the host. */
async function measureFast(address: string, seconds: number): Promise<string> {
  const { host, code } = await openLink(address, KIT);
  const game = await join(address, code, 1000, false);
  let received = 0;
  let expected = 0;
  host.onMessage = ({ t, frames }) => {
    if (t !== "batch") return;
    for (const { f } of frames as GameFrame[])
      if (f === expected) [received, expected] = [received + 1, f + 1];
  };
  const total = seconds * 1000;
  await play(1000, total, f => game.say({ t: "frame", ...frameAt(f) }));
  for (let n = 0; n < 200 && received < total; n++) await new Promise(resolve => setTimeout(resolve, 10));
  host.say({ t: "close" });
  return `${total - received} of ${total} lost`;
}

/** Notes, in each picture of the page, which frame the tape shows, and when. */
const WATCH_TAPE = `window.drawn = []; let last = -1;
  requestAnimationFrame(function look() {
    const f = Number(/(\\d+)f/.exec(document.querySelector("[data-testid=live-frame]")?.textContent ?? "")?.[1] ?? -1);
    if (f !== last) window.drawn.push([last = f, Date.now()]);
    requestAnimationFrame(look);
  });`;

const app = await startApp();
try {
  const { host, code } = await openLink(app.address, KIT);
  const before = memoryOf(app.pid);
  row(
    `events after frame, 60 a second for ${values.minutes} min`,
    await measureAnswers(app.address, code, Number(values.minutes) * 60),
  );
  row("memory of the server before and after", `${before} MB, ${memoryOf(app.pid)} MB`);
  host.say({ t: "close" });
  row("1000 frames a second for 60 s", await measureFast(app.address, 60));
  const links = await Promise.all(Array.from({ length: 8 }, () => openLink(app.address, KIT)));
  const all = await Promise.all(links.map(link => measureAnswers(app.address, link.code, 30)));
  all.forEach((found, n) => row(`eight games at once, 30 s, game ${n + 1}`, found));
  if (values.page) {
    const { driver, close } = await openBrowser();
    try {
      await openDemo({ driver, address: app.address }, "belfry-runner");
      await press(driver, "Link a game");
      const bar = 'section[aria-label="Live link"]';
      const shown = await waitFor(
        driver,
        "a code",
        async () => /code\s*(\S{4}-\S{2})/.exec(await textOf(driver, bar))?.[1],
      );
      await driver.executeScript(WATCH_TAPE);
      const sent = new Map<number, number>();
      const answers = await measureAnswers(app.address, shown, 60, (f, atMs) => sent.set(f, atMs));
      row("events after frame while a page draws, 60 s", answers);
      const drawn = await driver.executeScript<[number, number][]>("return window.drawn");
      const late = drawn
        .flatMap(([f, atMs]) => (sent.has(f) ? [atMs - sent.get(f)!] : []))
        .sort((a, b) => a - b);
      const at = (share: number) => `${quantileSorted(late, share).toFixed(0)} ms`;
      row("on the tape after it was sent", `${at(0.5)} median, ${at(0.95)} at 95 %, n = ${late.length}`);
    } finally {
      await close();
    }
  }
} finally {
  app.stop();
}
