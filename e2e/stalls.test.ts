import { setTimeout as wait } from "node:timers/promises";
import { expect, test } from "vitest";
import { WebSocket } from "ws";
import type { Kit } from "#core";
import { find, openKit, press, waitFor } from "./browser";
import { useSession } from "./session";

const session = useSession();

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "stalls",
  name: "Stalls",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
};
const FRAME_MS = 1000 / 60;
/** The times of the edges of three presses from the first on, in ms: of 102, 51 and 101 ms, 51 ms apart. */
const EDGES_MS = [0, 102, 153, 204, 255, 356];

interface Connection {
  readonly send: (method: string, params: object) => Promise<object>;
  readonly close: () => void;
}

/** Connects to a target of the browser's DevTools; commands can be sent without waiting for their answers. */
async function connect(address: string): Promise<Connection> {
  const socket = new WebSocket(address);
  await new Promise(resolve => socket.once("open", resolve));
  const waiting = new Map<number, (result: object) => void>();
  socket.on("message", data => {
    const { id, result } = JSON.parse(String(data)) as { id: number; result: object };
    waiting.get(id)?.(result);
  });
  let id = 0;
  return {
    send: (method, params) => {
      socket.send(JSON.stringify({ id: ++id, method, params }));
      return new Promise(resolve => waiting.set(id, resolve));
    },
    close: () => socket.close(),
  };
}

/** Connects to the page, whose keyboard it is. */
async function connectToPage(): Promise<Connection> {
  const pages = (await (await fetch(`http://${session.devTools}/json/list`)).json()) as {
    url: string;
    webSocketDebuggerUrl: string;
  }[];
  return connect(pages.find(({ url }) => url.includes("/kit/stalls-"))!.webSocketDebuggerUrl);
}

/** Returns the ids of the processes that render pages. */
async function renderers(): Promise<readonly number[]> {
  const version = (await (await fetch(`http://${session.devTools}/json/version`)).json()) as {
    webSocketDebuggerUrl: string;
  };
  const browser = await connect(version.webSocketDebuggerUrl);
  const { processInfo } = (await browser.send("SystemInfo.getProcessInfo", {})) as {
    processInfo: readonly { type: string; id: number }[];
  };
  browser.close();
  return processInfo.filter(({ type }) => type === "renderer").map(({ id }) => id);
}

interface Heard {
  /** The times of the events of the key, and how long after them the page got them, in ms. */
  readonly atMs: readonly number[];
  readonly lateMs: readonly number[];
}

/** A take as it is stored: its lanes are columns of alternating frames and values. */
interface Stored {
  readonly lanes: Readonly<Record<string, { readonly packed: readonly number[] }>>;
  readonly gaps?: readonly (readonly [frame: number, ms: number])[];
}

interface Played {
  readonly heard: Heard;
  /** The edges of the control in the take: frame and value. */
  readonly edges: readonly (readonly [frame: number, value: number])[];
  readonly gaps: Stored["gaps"];
  /** The longest time in which the page did nothing, in ms. */
  readonly pauseMs: number;
}

const pairsOf = (packed: readonly number[]): Played["edges"] =>
  Array.from({ length: packed.length / 2 }, (_, k) => [packed[2 * k]!, packed[2 * k + 1]!]);

/** Requires that edges are as far apart as the events of the key. */
function expectSameDistances({ heard, edges }: Played): void {
  expect(edges.map(([, value]) => value)).toEqual([1, 0, 1, 0, 1, 0]);
  for (let k = 1; k < edges.length; k++)
    expect((edges[k]![0] - edges[k - 1]![0]) * FRAME_MS).toBeCloseTo(heard.atMs[k]! - heard.atMs[k - 1]!, 0);
}

/**
 * Presses a key while the page is stalled, first after a share of the stall; returns the events as the browser stamped them,
 * and the take.
 */
async function playOnce(kitId: string, stallMs: number, firstAt: number): Promise<Played> {
  const { driver } = session;
  await openKit(session, { ...KIT, id: kitId });
  await driver.executeScript(
    `window.pauseMs = 0;
     let last = performance.now();
     setInterval(() => {
       const now = performance.now();
       pauseMs = Math.max(pauseMs, now - last);
       last = now;
     }, 20);`,
  );
  await press(driver, "Record a take");
  await find(driver, "//button[contains(., 'Stop and keep')]");
  const keyboard = await connectToPage();
  const stalled = await renderers();
  await driver.executeScript(
    `window.heard = { atMs: [], lateMs: [] };
     window.hearing = new AbortController();
     for (const type of ["keydown", "keyup"])
       window.addEventListener(type, event => {
         if (event.code !== "KeyA") return;
         window.heard.atMs.push(event.timeStamp);
         window.heard.lateMs.push(performance.now() - event.timeStamp);
       }, { capture: true, signal: hearing.signal });`,
  );
  const signal = (name: "SIGSTOP" | "SIGCONT") => stalled.forEach(pid => process.kill(pid, name));
  signal("SIGSTOP");
  const stall = wait(stallMs).then(() => signal("SIGCONT"));
  const began = performance.now();
  for (const [k, atMs] of EDGES_MS.entries()) {
    await wait(Math.max(0, began + stallMs * firstAt + atMs - performance.now()));
    void keyboard.send("Input.dispatchKeyEvent", {
      ...{ type: k % 2 === 0 ? "keyDown" : "keyUp", key: "a", code: "KeyA", windowsVirtualKeyCode: 65 },
    });
  }
  await stall;
  const heard = await waitFor(driver, "every event", async () => {
    const now = await driver.executeScript<Heard>("return window.heard");
    return now.atMs.length === EDGES_MS.length && now;
  });
  keyboard.close();
  await driver.executeScript("hearing.abort()");
  await press(driver, "Stop and keep");
  const stored = await waitFor(driver, "the take", () =>
    driver.executeAsyncScript<Stored | undefined>(
      `const done = arguments[1]; const open = indexedDB.open("moss-tap");
       open.onsuccess = () => { const get = open.result.transaction("parts").objectStore("parts").getAll();
         get.onsuccess = () => { open.result.close(); done(get.result.find(({ kitId, list }) => kitId === arguments[0] && list === "takes")?.value); }; };`,
      kitId,
    ),
  );
  const pauseMs = await driver.executeScript<number>("return window.pauseMs");
  return { heard, edges: pairsOf(stored.lanes.a!.packed), gaps: stored.gaps, pauseMs };
}

/** The longest time by which the machine may lengthen a stall: a longer one is another test. */
const MAX_LONGER_MS = 3000;

/** Plays as `playOnce`; again if the machine had no time for the page meanwhile. */
async function playThrough(stallMs: number, firstAt: number): Promise<Played> {
  for (let tries = 1; ; tries++) {
    const played = await playOnce(`stalls-${tries}`, stallMs, firstAt);
    if (played.pauseMs < stallMs + MAX_LONGER_MS || tries === 3) return played;
  }
}

test.each([80, 400, 700])(
  "real keys pressed in a stall of %d ms keep their own times in the take",
  async stallMs => {
    const played = await playThrough(stallMs, 0.1);
    expectSameDistances(played);
    expect(played.gaps).toBe(undefined);
    // The longest one did hold events up; the keyboard of a busy machine can miss a shorter one.
    if (stallMs === 700) expect(Math.max(...played.heard.lateMs)).toBeGreaterThan(50);
  },
);

test("a stall of more than ten seconds is one gap in the take; keys pressed in it keep their distances", async () => {
  // The gap is what lies beyond ten seconds, at the beginning of the stall.
  const played = await playThrough(11_000, 0.5);
  expectSameDistances(played);
  expect(played.gaps?.length).toBe(1);
  expect(played.gaps![0]![1]).toBeGreaterThan(500);
  expect(Math.min(...played.heard.lateMs)).toBeGreaterThan(4000);
});
