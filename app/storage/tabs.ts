import * as v from "valibot";
import { PART_LISTS } from "./records";

/** A message between tabs about a kit: it was written, it was deleted, someone wants the pen, a recording waits to be kept. */
const messageSchema = v.object({
  kind: v.picklist(["written", "removed", "pen", "recorded"]),
  kitId: v.string(),
  tabId: v.string(),
  /** What was written or taken away beside the kit. */
  changed: v.exactOptional(v.array(v.object({ list: v.picklist(PART_LISTS), id: v.string() }))),
});

export type TabMessage = v.InferOutput<typeof messageSchema>;

/** Who writes a kit: this tab, or another that has it open too. */
export type PenHolder = "ours" | "theirs";

/** The right to write one kit; only one tab has it at a time. Given up when the kit is closed or the tab goes. */
export interface Pen {
  /** Asks the tab that has it to hand it over; one that does not answer in time is passed over. */
  readonly take: () => void;
  readonly giveUp: () => void;
  /** The page is left, and may come back: the pen is given back at once, and asked for again when it does. */
  readonly pause: () => void;
  readonly resume: () => void;
}

/** The tabs of this browser that have the application open. */
export interface Tabs {
  readonly tabId: string;
  readonly tell: (message: Omit<TabMessage, "tabId">) => void;
  /** Hears what the others tell; gives what ends the hearing. */
  readonly hear: (listener: (message: TabMessage) => void) => () => void;
  /**
   * Asks for the pen of a kit. `turn` hears at once who has it, and again whenever that changes; `asked` hears that
   * another tab wants it: write what is unwritten, it goes when the promise is kept.
   */
  readonly askForPen: (
    kitId: string,
    turn: (holder: PenHolder) => void,
    asked: () => Promise<void>,
  ) => Promise<Pen>;
  /** Marks a thing as in work in this tab, until the returned function is called or the tab is gone. */
  readonly markAlive: (id: string) => () => void;
  /** Is a thing in work in any tab? Without locks nothing is known to be. */
  readonly isAlive: (id: string) => Promise<boolean>;
}

export interface TabsWorld {
  readonly tabId: string;
  readonly channel: Pick<BroadcastChannel, "postMessage" | "addEventListener"> | undefined;
  readonly locks: Pick<LockManager, "request"> | undefined;
  readonly later: (ms: number, run: () => void) => () => void;
}

/** How long the tab with the pen has to hand it over: one that is frozen or stuck does not answer. */
const HAND_OVER_MS = 1500;

function isStolen(error: unknown): boolean {
  return error instanceof DOMException && error.name === "AbortError";
}

/** Makes the tabs. Without locks every tab may write: the version of a record still tells who came second. */
export function createTabs({ tabId, channel, locks, later }: TabsWorld): Tabs {
  const listeners = new Set<(message: TabMessage) => void>();
  channel?.addEventListener("message", ({ data }: MessageEvent<unknown>) => {
    const read = v.safeParse(messageSchema, data);
    if (read.success && read.output.tabId !== tabId) for (const hear of listeners) hear(read.output);
  });
  const tell: Tabs["tell"] = message => channel?.postMessage({ ...message, tabId });
  const hear: Tabs["hear"] = listener => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  };

  async function askForPen(
    kitId: string,
    turn: (holder: PenHolder) => void,
    asked: () => Promise<void>,
  ): Promise<Pen> {
    if (!locks) {
      turn("ours");
      const nothing = () => undefined;
      return { take: nothing, giveUp: nothing, pause: nothing, resume: nothing };
    }
    const name = `moss-tap-kit:${kitId}`;
    let letGo: (() => void) | undefined;
    let waiting: AbortController | undefined;
    let isOver = false;

    /** Holds the lock until it is let go. */
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
          if (!isStolen(error)) throw error;
          if (letGo) lose();
        },
      );
    /** Waits in line for the pen. */
    function wait(): void {
      waiting = new AbortController();
      void request({ signal: waiting.signal });
    }
    function stopWaiting(): void {
      waiting?.abort();
      waiting = undefined;
    }
    const stopHearing = hear(message => {
      if (message.kind !== "pen" || message.kitId !== kitId) return;
      if (!letGo) {
        // Someone else in line wants it sooner: let them by.
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
            if (isStolen(error) && letGo) lose();
          },
        );
    });

    return {
      take() {
        if (letGo || isOver) return;
        stopWaiting();
        wait();
        tell({ kind: "pen", kitId });
        later(HAND_OVER_MS, () => {
          if (letGo || isOver) return;
          stopWaiting();
          void request({ steal: true });
        });
      },
      giveUp() {
        isOver = true;
        stopHearing();
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
    void locks?.request(aliveName(id), () => over);
    return () => {
      alive.delete(id);
      end?.();
    };
  }

  async function isAlive(id: string): Promise<boolean> {
    if (alive.has(id)) return true;
    if (!locks) return false;
    return (await locks.request(aliveName(id), { ifAvailable: true }, lock => lock === null)) as boolean;
  }

  return { tabId, tell, hear, askForPen, markAlive, isAlive };
}
