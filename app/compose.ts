import { nanoid } from "nanoid";
import type { KitApp } from "./composeKits";
import type { NextTurn } from "./document/playback";
import { createJobs, type JobsWorld } from "./judging/jobs/jobs";
import type { Workers } from "./judging/workers";
import { createLibrary, type Library } from "./storage/library";
import type { LocalStore } from "./storage/setAside";
import type { Stored } from "./storage/context";
import { createShelf } from "./storage/shelf";
import { createTabs, type Tabs } from "./storage/tabs";
import { createNotices, type Notices } from "./ui/notices";

/** The application's external dependencies, from the browser or from a test. */
export interface World {
  readonly databaseName: string;
  /** The page's clock, which stamps its events, and the wall clock; ms. */
  readonly nowMs: () => number;
  readonly wallMs: () => number;
  readonly setTimer: (ms: number, run: () => void) => () => void;
  /** Yields so that the page can handle pending events before long work continues. */
  readonly yieldToUi: () => Promise<void>;
  readonly nextTurn: NextTurn;
  readonly localStorage: LocalStore | undefined;
  readonly locks: Pick<LockManager, "request"> | undefined;
  readonly channel: Pick<BroadcastChannel, "postMessage" | "addEventListener"> | undefined;
  readonly startWorker: JobsWorld["startWorker"];
  /** The number of processor cores. */
  readonly cores: number;
  readonly saveRaw: (name: string, raw: unknown) => void;
}

/** The owners of state that every page needs. */
export interface App extends Workers, Stored {
  readonly world: World;
  readonly library: Library;
  readonly tabs: Tabs;
  readonly notices: Notices;
  /** The owners of state of kits; undefined until the first kit opens (`kitAppOf`). */
  readonly kits: { current: KitApp | undefined };
}

/** The number of workers: as many as the smallest machine has cores. */
const THREADS = 2;

/** Composes what every page needs. Owners of state are created here and in `composeKits.ts` only. */
export function composeApp(world: World): App {
  const { wallMs, setTimer, yieldToUi } = world;
  const notices = createNotices(world.saveRaw);
  const tabs = createTabs({ tabId: nanoid(8), channel: world.channel, locks: world.locks, setTimer });
  const library = createLibrary({
    name: world.databaseName,
    tabs,
    localStorage: world.localStorage,
    locks: world.locks,
    setTimer,
    yieldToUi,
    onUnwritable: ({ text, write }, forget) =>
      notices.notify({
        tone: "trouble",
        title: write
          ? `The last edit of ${write.record?.kit.name ?? "a kit"} was not written, and the kit was deleted meanwhile.`
          : "An edit that a page left unwritten cannot be read.",
        details: ["It stays in this browser until it is saved or deleted."],
        action: {
          label: "Save it as a file",
          run: () => notices.notify.saveRaw("edit, not written", write ?? text),
        },
        other: { label: "Delete it", run: forget },
      }),
  });
  return {
    world,
    library,
    tabs,
    shelf: createShelf(library, wallMs),
    storage: library.status,
    hasHeld: library.hasHeld,
    jobs: createJobs({ startWorker: world.startWorker, setTimer, threads: THREADS }),
    yieldToUi,
    notices,
    kits: { current: undefined },
  };
}

/** Closes the open kit, if any, and puts its pad to sleep. */
export async function closeKit({ kits }: App): Promise<void> {
  kits.current?.pad.sleep();
  await kits.current?.workbench.close();
}
