import * as v from "valibot";
import { PART_LISTS } from "./records";

/**
 * A message between tabs about a kit: it was written or deleted, a tab requests the pen, a recording waits to
 * be kept.
 */
const messageSchema = v.object({
  kind: v.picklist(["written", "removed", "pen", "recorded"]),
  kitId: v.string(),
  tabId: v.string(),
  /** The parts beside the kit that were written or deleted. */
  changed: v.exactOptional(v.array(v.object({ list: v.picklist(PART_LISTS), id: v.string() }))),
});

export type TabMessage = v.InferOutput<typeof messageSchema>;

/** The holder of the pen of a kit: this tab, or another one that has it open. */
export type PenHolder = "ours" | "theirs";

/** The right to write one kit, held by at most one tab. Released when the kit or the tab is closed. */
export interface Pen {
  /** Requests it from the tab that holds it; a tab that does not respond in time loses it. */
  readonly take: () => void;
  readonly giveUp: () => void;
  /**
   * Call when the page is being left and may return: releases the pen at once, and requests it again on
   * return.
   */
  readonly pause: () => void;
  readonly resume: () => void;
}

/** The tabs of this browser that have the application open. */
export interface Tabs {
  readonly tabId: string;
  readonly broadcast: (message: Omit<TabMessage, "tabId">) => void;
  /** Subscribes to messages of other tabs; returns a function that unsubscribes. */
  readonly subscribe: (listener: (message: TabMessage) => void) => () => void;
  /**
   * Requests the pen of a kit. `onTurn` is called at once with its holder, and whenever that changes;
   * `onAsked` is called when another tab requests it: store pending changes, it is handed over when the
   * promise resolves.
   */
  readonly askForPen: (
    kitId: string,
    turn: (holder: PenHolder) => void,
    asked: () => Promise<void>,
  ) => Promise<Pen>;
  /** Marks something as in use by this tab, until the returned function is called or the tab is closed. */
  readonly markAlive: (id: string) => () => void;
  /** Returns whether something is in use by any tab; false without locks. */
  readonly isAlive: (id: string) => Promise<boolean>;
}

export interface TabsWorld {
  readonly tabId: string;
  readonly channel: Pick<BroadcastChannel, "postMessage" | "addEventListener"> | undefined;
  readonly locks: Pick<LockManager, "request"> | undefined;
  readonly setTimer: (ms: number, run: () => void) => () => void;
}

/** The time the holder has to hand over the pen; a frozen or stuck tab does not respond. */
const HAND_OVER_MS = 1500;

function isStolen(error: unknown): boolean {
  return error instanceof DOMException && error.name === "AbortError";
}

/** Returns a pen that this tab holds whatever other tabs do. */
function penWithoutLocks(turn: (holder: PenHolder) => void): Pen {
  turn("ours");
  const nothing = () => undefined;
  return { take: nothing, giveUp: nothing, pause: nothing, resume: nothing };
}

/** Creates the tabs. Without locks every tab may write, and the version of a record detects conflicts. */
export function createTabs({ tabId, channel, locks, setTimer }: TabsWorld): Tabs {
  const listeners = new Set<(message: TabMessage) => void>();
  channel?.addEventListener("message", ({ data }: MessageEvent<unknown>) => {
    const read = v.safeParse(messageSchema, data);
    if (read.success && read.output.tabId !== tabId) for (const listener of listeners) listener(read.output);
  });
  const broadcast: Tabs["broadcast"] = message => channel?.postMessage({ ...message, tabId });
  const subscribe: Tabs["subscribe"] = listener => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  };

  async function askForPen(
    kitId: string,
    turn: (holder: PenHolder) => void,
    asked: () => Promise<void>,
  ): Promise<Pen> {
    if (!locks) return penWithoutLocks(turn);
    const name = `moss-tap-kit:${kitId}`;
    let letGo: (() => void) | undefined;
    let waiting: AbortController | undefined;
    let isOver = false;

    /** Holds the lock until it is released. */
    const hold = () => {
      turn("ours");
      return new Promise<void>(resolve => (letGo = resolve));
    };
    const lose = () => {
      letGo = undefined;
      if (isOver) return;
      turn("theirs");
      wait();
    };
    const request = (options: LockOptions) =>
      locks.request(name, options, hold).then(
        () => undefined,
        (error: unknown) => {
          if (isStolen(error) && letGo) lose();
        },
      );
    /** Queues for the pen. */
    function wait(): void {
      waiting = new AbortController();
      void request({ signal: waiting.signal });
    }
    function stopWaiting(): void {
      waiting?.abort();
      waiting = undefined;
    }
    const unsubscribe = subscribe(message => {
      if (message.kind !== "pen" || message.kitId !== kitId) return;
      if (!letGo) {
        // Another tab in the queue requested it: let it pass.
        stopWaiting();
        wait();
        return;
      }
      const give = letGo;
      void asked().finally(() => {
        give();
        lose();
      });
    });

    let isRefused = false;
    await new Promise<void>(resolve => {
      void locks
        .request(name, { ifAvailable: true }, lock => {
          if (lock) {
            const held = hold();
            resolve();
            return held;
          }
          turn("theirs");
          wait();
          resolve();
          return undefined;
        })
        .then(
          () => undefined,
          (error: unknown) => {
            if (isStolen(error)) return letGo ? lose() : undefined;
            // A browser that keeps no data of a site refuses its locks too: every tab writes, in memory.
            isRefused = true;
            resolve();
          },
        );
    });
    if (isRefused) {
      unsubscribe();
      return penWithoutLocks(turn);
    }

    return {
      take() {
        if (letGo || isOver) return;
        stopWaiting();
        wait();
        broadcast({ kind: "pen", kitId });
        setTimer(HAND_OVER_MS, () => {
          if (letGo || isOver) return;
          stopWaiting();
          void request({ steal: true });
        });
      },
      giveUp() {
        isOver = true;
        unsubscribe();
        stopWaiting();
        letGo?.();
        letGo = undefined;
      },
      pause() {
        stopWaiting();
        const give = letGo;
        letGo = undefined;
        if (give && !isOver) turn("theirs");
        give?.();
      },
      resume() {
        if (!letGo && !waiting && !isOver) wait();
      },
    };
  }

  const aliveName = (id: string) => `moss-tap-alive:${id}`;

  const alive = new Set<string>();

  function markAlive(id: string): () => void {
    let end: (() => void) | undefined;
    const over = new Promise<void>(resolve => (end = resolve));
    alive.add(id);
    void locks?.request(aliveName(id), () => over).catch(() => undefined);
    return () => {
      alive.delete(id);
      end?.();
    };
  }

  async function isAlive(id: string): Promise<boolean> {
    if (alive.has(id)) return true;
    if (!locks) return false;
    const isTaken = locks.request(aliveName(id), { ifAvailable: true }, lock => lock === null);
    return isTaken.catch(() => false) as Promise<boolean>;
  }

  return { tabId, broadcast, subscribe, askForPen, markAlive, isAlive };
}
