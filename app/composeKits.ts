import type { StoreApi } from "zustand/vanilla";
import type { App } from "./compose";
import { createChecking, type Checking } from "./document/checking";
import { createEvaluation, type Evaluation } from "./document/evaluation";
import { createPlayback, type Playback } from "./document/playback";
import { createProving, type Proof } from "./document/proving";
import { createStudying, type Studying } from "./document/studying";
import { createWorkbench, type Workbench } from "./document/workbench";
import { createPad, type Pad } from "./input/pad";
import type { PadReading } from "./input/gamepads";
import { createPadMaps } from "./input/padMaps";
import type { PageListener } from "./input/pageEvents";
import type { Judging } from "./judging/context";
import { createJudge } from "./judging/judge";
import { createGameLink, type GameLink } from "./link/gameLink";
import type { LinkSocket, LinkSocketListeners } from "./link/linkSocket";
import type { PageTape } from "./tape/hand/context";
import { createTapeActions } from "./tape/hand/tapeActions";
import { createTapeLook, type TapeLook } from "./tape/hand/tapeLook";

/** The owners of state that the pages of a kit need besides those of every page. */
export interface KitApp extends Judging {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  readonly proving: StoreApi<Proof>;
  readonly checking: Checking;
  readonly studying: Studying;
  readonly pad: Pad;
  readonly gameLink: GameLink;
  readonly tape: PageTape;
}

/** The devices and connections of a page, from the browser or from a test. */
export interface Devices {
  readonly listen: (listener: PageListener) => () => void;
  readonly readPads: (() => readonly (PadReading | null)[]) | undefined;
  /** Connects to the live links of the page's server; undefined where there is none. */
  readonly openSocket: ((listeners: LinkSocketListeners) => LinkSocket) | undefined;
}

/** Composes what the pages of a kit need. */
function composeKits(app: App, devices: Devices): KitApp {
  const { library, tabs, jobs, notices, yieldToUi } = app;
  const world = { ...app.world, ...devices };
  const { notify } = notices;
  const { wallMs, nowMs } = world;
  const judge = createJudge();
  const workbench = createWorkbench({ library, tabs, notify, nowMs: wallMs });
  const evaluation = createEvaluation(workbench, judge, jobs, world);
  const proving = createProving(workbench, judge, jobs, world);
  const playback = createPlayback(evaluation, world.nextTurn);
  const maps = createPadMaps(world.localStorage, world.readPads);
  const pad = createPad({ ...world, maps, workbench, evaluation, judge, library, tabs });
  const linkWorld = { workbench, evaluation, pad, library, tabs, notify };
  const look: StoreApi<TapeLook> = createTapeLook(workbench, evaluation);
  const tape = { look, actions: createTapeActions({ workbench, evaluation, playback, look }) };
  return {
    judge,
    yieldToUi,
    jobs,
    workbench,
    evaluation,
    proving,
    checking: createChecking({ workbench, evaluation, notify }),
    studying: createStudying({ workbench, jobs, nowMs }),
    playback,
    pad,
    gameLink: createGameLink({ ...world, ...linkWorld }),
    tape,
  };
}

/** Returns the owners of state of kits, which are composed at the first call. */
export function kitAppOf(app: App, devices: () => Devices): KitApp {
  return (app.kits.current ??= composeKits(app, devices()));
}
