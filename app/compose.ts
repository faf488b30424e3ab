import { nanoid } from "nanoid";
import type { StoreApi } from "zustand/vanilla";
import { createEvaluation } from "./document/evaluation";
import { createChecking } from "./document/checking";
import { createProving } from "./document/proving";
import { createStudying } from "./document/studying";
import { createPlayback, type NextTurn } from "./document/playback";
import type { Checking } from "./document/checking";
import type { Evaluation } from "./document/evaluation";
import type { Playback } from "./document/playback";
import type { Proof } from "./document/proving";
import type { Studying } from "./document/studying";
import { createWorkbench, type Workbench } from "./document/workbench";
import type { PadReading } from "./input/gamepads";
import { createPad, type Pad } from "./input/pad";
import { createPadMaps } from "./input/padMaps";
import type { PageListener } from "./input/pageEvents";
import { createGameLink, type GameLink } from "./link/gameLink";
import type { LinkSocket, LinkSocketListeners } from "./link/linkSocket";
import { createJobs, type JobsWorld } from "./judging/jobs/jobs";
import type { Judging } from "./judging/context";
import { createJudge } from "./judging/judge";
import { createLibrary, type Library } from "./storage/library";
import type { LocalStore } from "./storage/setAside";
import type { Stored } from "./storage/context";
import { createShelf } from "./storage/shelf";
import { createTabs, type Tabs } from "./storage/tabs";
import type { PageTape } from "./tape/hand/context";
import { createTapeActions } from "./tape/hand/tapeActions";
import { createTapeLook, type TapeLook } from "./tape/hand/tapeLook";
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
  readonly listen: (listener: PageListener) => () => void;
  readonly readPads: (() => readonly (PadReading | null)[]) | undefined;
  /** Connects to the live links of the page's server; undefined where there is none. */
  readonly openSocket: ((listeners: LinkSocketListeners) => LinkSocket) | undefined;
  readonly saveRaw: (name: string, raw: unknown) => void;
}

/** Every owner of state in the application. */
export interface App extends Judging, Stored {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  readonly proving: StoreApi<Proof>;
  readonly checking: Checking;
  readonly studying: Studying;
  readonly library: Library;
  readonly tabs: Tabs;
  readonly pad: Pad;
  readonly gameLink: GameLink;
  readonly tape: PageTape;
  readonly notices: Notices;
}

/** The number of workers: as many as the smallest machine has cores. */
const THREADS = 2;

/** Composes the application: the only place that creates owners of state. */
export function composeApp(world: World): App {
  const { wallMs, setTimer, nextTurn } = world;
  const notices = createNotices(world.saveRaw);
  const tabs = createTabs({ tabId: nanoid(8), channel: world.channel, locks: world.locks, setTimer });
  const library = createLibrary({
    name: world.databaseName,
    tabs,
    localStorage: world.localStorage,
    locks: world.locks,
    setTimer,
    yieldToUi: world.yieldToUi,
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
  const shelf = createShelf(library, wallMs);
  const judge = createJudge();
  const jobs = createJobs({ startWorker: world.startWorker, setTimer, threads: THREADS });
  const workbench = createWorkbench({ library, tabs, notify: notices.notify, nowMs: wallMs });
  const evaluation = createEvaluation(workbench, judge, jobs, world);
  const proving = createProving(workbench, judge, jobs, world);
  const playback = createPlayback(evaluation, nextTurn);
  const maps = createPadMaps(world.localStorage, world.readPads);
  const pad = createPad({ ...world, maps, workbench, evaluation, judge, library, tabs });
  const linkWorld = { workbench, evaluation, pad, library, tabs, notify: notices.notify };
  const look: StoreApi<TapeLook> = createTapeLook(workbench, evaluation);
  const tape = { look, actions: createTapeActions({ workbench, evaluation, playback, look }) };
  return {
    library,
    tabs,
    shelf,
    storage: library.status,
    hasHeld: library.hasHeld,
    judge,
    jobs,
    yieldToUi: world.yieldToUi,
    workbench,
    evaluation,
    proving,
    checking: createChecking({ workbench, evaluation, notify: notices.notify }),
    studying: createStudying({ workbench, jobs, nowMs: world.nowMs }),
    playback,
    pad,
    gameLink: createGameLink({ ...world, ...linkWorld }),
    tape,
    notices,
  };
}
