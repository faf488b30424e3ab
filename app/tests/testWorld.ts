import "fake-indexeddb/auto";
import { expose } from "comlink";
import type { Kit, Take } from "#core";
import { composeApp, type App, type World } from "../compose";
import { kitAppOf, type Devices, type KitApp } from "../composeKits";
import type { PageListener } from "../input/pageEvents";
import { createService } from "../judging/jobs/service";
import { documentOf } from "../storage/shelf";

/** Creates timers that only run when the test advances time. */
export function createTimers() {
  let nowMs = 0;
  let waiting: { readonly atMs: number; readonly run: () => void }[] = [];
  return {
    nowMs: () => nowMs,
    setTimer(ms: number, run: () => void) {
      const entry = { atMs: nowMs + ms, run };
      waiting.push(entry);
      return () => void (waiting = waiting.filter(other => other !== entry));
    },
    /** Advances time; due timers run in order. */
    pass(ms: number) {
      nowMs += ms;
      const due = waiting.filter(entry => entry.atMs <= nowMs).sort((a, b) => a.atMs - b.atMs);
      waiting = waiting.filter(entry => entry.atMs > nowMs);
      for (const { run } of due) run();
    },
  };
}

interface Claim {
  readonly run: (lock: Lock | null) => unknown;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: unknown) => void;
}

/** Emulates the browser's locks as far as they are used: exclusive, queued, if available, or stolen. */
export function createLocks(): Pick<LockManager, "request"> {
  const holders = new Map<string, Claim>();
  const lines = new Map<string, Claim[]>();
  const grant = (name: string, claim: Claim) => {
    holders.set(name, claim);
    void Promise.resolve(claim.run({ name, mode: "exclusive" }))
      .then(claim.resolve, claim.reject)
      .then(() => {
        if (holders.get(name) !== claim) return;
        holders.delete(name);
        const next = lines.get(name)?.shift();
        if (next) grant(name, next);
      });
  };
  const abort = () => new DOMException("aborted", "AbortError");
  const request = (name: string, ...rest: unknown[]) =>
    new Promise((resolve, reject) => {
      const run = rest.at(-1) as Claim["run"];
      const options = (rest.length > 1 ? rest[0] : {}) as LockOptions;
      const claim = { run, resolve, reject };
      if (options.steal) {
        holders.get(name)?.reject(abort());
        return grant(name, claim);
      }
      if (!holders.has(name)) return grant(name, claim);
      if (options.ifAvailable) return resolve(run(null));
      const line = lines.get(name) ?? [];
      lines.set(name, [...line, claim]);
      options.signal?.addEventListener("abort", () => {
        lines.set(
          name,
          lines.get(name)!.filter(other => other !== claim),
        );
        reject(abort());
      });
    });
  return { request } as Pick<LockManager, "request">;
}

/** Creates the resources that the tabs of one browser share: database, locks, channel and localStorage. */
export function createBrowser() {
  const channel = new EventTarget();
  const kept = new Map<string, string>();
  const localStorage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (place: number) => [...kept.keys()][place] ?? null,
    get length() {
      return kept.size;
    },
  };
  const databaseName = `test-${Math.round(performance.now() * 1000)}-${browsers++}`;
  return { databaseName, locks: createLocks(), localStorage, channel };
}
let browsers = 0;
export type TestBrowser = ReturnType<typeof createBrowser>;

/** Opens one tab: an application of its own, with clocks controlled by the test. */
export function openTab(browser: TestBrowser = createBrowser(), change: Partial<World & Devices> = {}) {
  const timers = createTimers();
  let die = () => {};
  const death = new Promise<void>(resolve => (die = resolve));
  /** This tab's view of the browser's locks: they are released when the tab is killed. */
  const locks = {
    request: (name: string, ...rest: unknown[]) => {
      const run = rest.at(-1) as (lock: Lock | null) => unknown;
      const own = (lock: Lock | null) => Promise.race([run(lock), ...(lock ? [death] : [])]);
      return (browser.locks.request as (...args: unknown[]) => unknown)(name, ...rest.slice(0, -1), own);
    },
  } as Pick<LockManager, "request">;
  let turns: ((nowMs: number) => void)[] = [];
  let listener: PageListener | undefined;
  const world: World = {
    databaseName: browser.databaseName,
    nowMs: timers.nowMs,
    wallMs: () => 1_700_000_000_000 + timers.nowMs(),
    setTimer: timers.setTimer,
    yieldToUi: () => Promise.resolve(),
    nextTurn(run) {
      turns.push(run);
      return () => void (turns = turns.filter(other => other !== run));
    },
    localStorage: browser.localStorage,
    locks,
    channel: {
      postMessage: data =>
        queueMicrotask(() => browser.channel.dispatchEvent(new MessageEvent("message", { data }))),
      addEventListener: browser.channel.addEventListener.bind(
        browser.channel,
      ) as BroadcastChannel["addEventListener"],
    },
    startWorker: startTestWorker,
    cores: 4,
    saveRaw: () => undefined,
    ...change,
  };
  const devices: Devices = {
    listen(next) {
      listener = next;
      return () => void (listener = undefined);
    },
    readPads: undefined,
    openSocket: undefined,
    ...change,
  };
  const app = composeApp(world);
  return {
    ...app,
    ...kitAppOf(app, () => devices),
    browser,
    timers,
    /** Runs an animation frame, a number of ms later. */
    turn(ms: number) {
      timers.pass(ms);
      const now = turns;
      turns = [];
      for (const run of now) run(timers.nowMs());
    },
    /** Kills the tab: the browser gives its locks to others. */
    kill: die,
    /** Returns the listener of page events while the pad is awake. */
    page: () => listener,
  };
}
export type TestTab = ReturnType<typeof openTab>;

/** Starts an emulated worker: the same service on a channel of this thread. */
export function startTestWorker(): ReturnType<World["startWorker"]> {
  const { port1, port2 } = new MessageChannel();
  expose(createService(), port2);
  return Object.assign(port1, {
    terminate() {
      port1.close();
      port2.close();
    },
  }) as unknown as ReturnType<World["startWorker"]>;
}

/** Adds a kit with takes to the shelf of a tab and opens it. */
export async function openKit(tab: App & KitApp, kit: Kit, takes: readonly Take[] = []): Promise<void> {
  await tab.shelf.add(documentOf(kit, takes), "new");
  await tab.workbench.open(kit.id);
}

/** Far longer than any condition takes to hold, on a busy machine too, and less than the limit of a test. */
const PATIENCE_MS = 200_000;

/** Waits until a condition holds. */
export async function until(holds: () => boolean): Promise<void> {
  for (const endMs = Date.now() + PATIENCE_MS; Date.now() < endMs;) {
    if (holds()) return;
    await new Promise(resolve => setTimeout(resolve, 1));
  }
  throw new Error(`never came about: ${holds.toString()}`);
}
