import { nanoid } from "nanoid";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { Evaluation } from "../document/evaluation";
import type { NextTurn } from "../document/playback";
import type { Workbench } from "../document/workbench";
import type { Judge } from "../judging/judge";
import type { Library } from "../storage/library";
import type { Tabs } from "../storage/tabs";
import { nextSpeed, type BenchAct } from "./benchKeys";
import { createPadPoller } from "./gamepads";
import type { RawReport } from "./held";
import type { LinkedSession } from "./linkedSession";
import { createLiveSession, type LiveSession } from "./liveSession";
import { createPadInput } from "./padInput";
import { createPadRules, playAlike } from "./padRules";
import { ASLEEP, flipWide, UNTOUCHED, type PadState } from "./padState";
import type { PageListener } from "./pageEvents";
import type { PadMaps } from "./padMaps";
import { createPadRecorder } from "./padRecorder";
import { createFigureKeeper, type FigureKeeper, type SessionFigures } from "./sessionFigures";
import { createSeenTracks, type SeenTracks } from "./seenTracks";
import { createSuccession } from "./succession";
import { trialGate } from "./trialModes";

export interface Pad extends Pick<StoreApi<PadState>, "getState" | "getInitialState" | "subscribe"> {
  /**
   * Wakes the pad: keys belong to the kit, which runs from frame 0. Does nothing while the kit has faults.
   */
  readonly wake: (isRecording?: boolean) => void;
  /**
   * Puts the pad to sleep: releases every control, returns the keys to the page, and keeps a recording as a
   * take.
   */
  readonly sleep: () => void;
  /**
   * Shows the session of a running game in place of the devices, which are put to sleep; call it again after every
   * frame. Without a session, the pad is asleep again.
   */
  readonly showLinked: (session: LinkedSession | undefined) => void;
  /**
   * Stores what was played since the pad was woken as a new take of the open kit; within a minute after its end, what was
   * played last.
   */
  readonly keep: () => void;
  /** Stops or continues the clock. Input meanwhile lands on the next frame. */
  readonly freeze: () => void;
  /** Steps one frame while the clock is stopped. */
  readonly step: () => void;
  /** Lets the stage fill the window, or not. */
  readonly toggleWide: () => void;
  /** Marks the present frame as the place that `goBack` returns to. */
  readonly markPlace: () => void;
  /**
   * Goes back to the marked place, or to two seconds ago, under the present rules; held keys stay held. While recording,
   * what was recorded is kept as a take if it has input after that place, and the recording goes on as another one from there.
   */
  readonly goBack: (where: "mark" | "recent") => void;
  /** Sets the speed of the game clock from the next frame on, in percent; it is recorded. */
  readonly setSpeed: (percent: number) => void;
  /** Handles a device report while the pad is awake: cleans it, lands it on a frame, logs it. */
  readonly report: (raw: RawReport, timeMs: number) => void;
  /**
   * Sets controls of the on-screen pad, each 0 (released) to 1, in one action; the first one wakes the pad.
   */
  readonly holdOnScreen: (...held: readonly (readonly [controlId: string, value: number])[]) => void;
  /** Activates an assist of the kit, or none: the assisted kit is played from now on. */
  readonly setAssist: (assistId: string | undefined) => void;
  /** Switches the running kit to a mode, as a switch of the kit would; not during a recording. */
  readonly tryMode: (modeId: string) => void;
  /** Toggles a gate manually from the next frame on. */
  readonly turnGate: (gateId: string) => void;
  readonly letAllGo: () => void;
  /** The maps of pads without the standard layout, and the readers of pads. */
  readonly maps: PadMaps;
  /** Detects connected pads, awake or not. */
  readonly refreshPads: () => void;
  /** The tracks of kept takes as they were seen, where the rules were changed meanwhile. */
  readonly seen: Pick<SeenTracks, "differsFrom">;
  /** Returns the measurements since the pad was last woken. */
  readonly readFigures: () => SessionFigures;
}

export interface PadWorld {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly judge: Judge;
  readonly library: Pick<Library, "addChunk" | "dropRecording">;
  readonly tabs: Pick<Tabs, "markAlive">;
  /** The page's clock, which stamps its events, in ms. */
  readonly nowMs: () => number;
  readonly nextTurn: NextTurn;
  readonly setTimer: (ms: number, run: () => void) => () => void;
  readonly listen: (listener: PageListener) => () => void;
  readonly maps: PadMaps;
}

/** The interval at which pads are read between two turns of the screen, as short as pages may ask for. */
const READ_EVERY_MS = 4;

/** The time for which an unrecorded session can still be kept after its end. */
const KEEPABLE_MS = 60_000;

/** The longest time for which frames are stepped between two turns of the screen. */
const SLICE_MS = 50;

function findGate({ program }: LiveSession, gateId: string): number {
  return program.gates.findIndex(gate => gate.id === gateId);
}

/** Lets a session that was not recorded be kept for a minute after its end, if anything was pressed in it. */
function offerEnded(store: StoreApi<PadState>, ended: LiveSession, setTimer: PadWorld["setTimer"]): void {
  if (!store.getState().log.some(({ frame }) => frame >= 0)) return;
  store.setState({ ended });
  setTimer(KEEPABLE_MS, () => {
    if (store.getState().ended === ended) store.setState({ ended: undefined });
  });
}

/** Creates the pad of one page, asleep. */
export function createPad(world: PadWorld): Pad {
  const { workbench, evaluation, nowMs } = world;
  const poller = createPadPoller(world.maps.read);
  const store = createStore<PadState>(() => ASLEEP);
  let figures: FigureKeeper = createFigureKeeper();
  let beganMs = 0;
  const assistId = () => store.getState().assist;
  const { assistOf, toPlay, boundControls } = createPadRules({ ...world, assistId });
  const input = createPadInput({
    store,
    figures: () => figures,
    beganMs: () => beganMs,
    onAllGone: poller.ignoreHeld,
  });
  const seen = createSeenTracks();
  const recorder = createPadRecorder({ ...world, store, assistOf, onTake: seen.keep });
  const { updateControls } = input;
  const { keepTry } = recorder;
  const succession = createSuccession({ store, toPlay, nowMs, updateControls, keepTry });
  const callOff = { turn: () => {}, reads: () => {} };
  /** The time of the last read of the pads; NaN before the first. */
  let lastReadMs = NaN;
  let stopListening = () => {};
  /** The pads that bindings name by their order. */
  let numberedPads: ReadonlySet<number> = new Set();

  function setControls(): void {
    const controls = boundControls();
    const named = controls
      .flatMap(({ bindings }) => bindings.flat())
      .map(code => /^pad(\d):/.exec(code)?.[1]);
    numberedPads = new Set(named.filter(order => order !== undefined).map(Number));
    input.setControls(controls, workbench.getState().kit?.sticks ?? []);
  }

  const refreshPads = () => store.setState({ pads: poller.status() });

  /** Reads the pads at the time of an event, and places changes in the middle of the interval since the last read. */
  function readPads(): void {
    const now = nowMs();
    const middle = Number.isFinite(lastReadMs) ? (lastReadMs + now) / 2 : now;
    lastReadMs = now;
    pollPads(middle);
    figures.padsRead(now);
  }

  /** Reads the pads between two turns of the screen too, as long as there is one. */
  function readOften(): void {
    callOff.reads();
    if (store.getState().pads.pads.length === 0) return;
    callOff.reads = world.setTimer(READ_EVERY_MS, () => {
      if (!store.getState().session) return;
      readPads();
      readOften();
    });
  }

  /** Reads the pads; a code that goes to 0 because its pad is gone is let go with that reason. */
  function pollPads(atMs: number, released?: "unplugged"): void {
    poller.poll((code, value) => {
      if (value === 0 && released) input.letGo(held => held === code, released, atMs);
      else input.report({ code, value, isRepeat: false }, atMs);
    }, numberedPads);
  }

  function onPads(): void {
    const before = store.getState().pads.pads.length;
    refreshPads();
    // The others keep what they hold.
    if (store.getState().pads.pads.length < before) pollPads(nowMs(), "unplugged");
    if (store.getState().session) readOften();
  }

  /** Steps the frames that are due, for at most a slice of time. Rules slower than time itself leave a gap. */
  function catchUp(session: LiveSession, now: number): number {
    const beganAtMs = nowMs();
    let isCut = false;
    const stepped = session.advance(now, () => {
      isCut = nowMs() - beganAtMs > SLICE_MS;
      return !isCut;
    });
    const isSlow = (stepped * 1000) / session.program.rateHz < nowMs() - beganAtMs;
    if (isCut && isSlow) session.markGap(now, true);
    noteGaps(session);
    return stepped;
  }

  function noteGaps({ recording: { gaps } }: LiveSession): void {
    const missedMs = gaps.reduce((sum, [, ms]) => sum + ms, 0);
    if (missedMs !== store.getState().missedMs) store.setState({ missedMs });
  }

  function turn(now: number): void {
    const { session } = store.getState();
    if (!session) return;
    if (store.getState().pads.pads.length > 0) readPads();
    else pollPads(now);
    figures.turn(now);
    if (catchUp(session, now) > 0) {
      figures.ran(session.state.frame, nowMs());
      store.setState({ frame: session.state.frame });
    }
    succession.catchUp();
    recorder.keepUp(session, now);
    callOff.turn = world.nextTurn(turn);
  }

  function wake(isRecording = false): void {
    const { kit, holder } = workbench.getState();
    const rules = toPlay(isRecording);
    if (!kit || !rules || store.getState().isLinked) return;
    // A tab that may not write cannot keep a recording, so it is refused in advance.
    if (isRecording && holder !== "ours" && !workbench.mayEdit()) return;
    sleep();
    beganMs = nowMs();
    figures = createFigureKeeper();
    setControls();
    poller.reset();
    if (isRecording) recorder.begin(kit);
    store.setState({
      ...UNTOUCHED,
      session: createLiveSession(rules, beganMs),
      isRecording,
      pads: poller.status(),
    });
    stopListening = world.listen({
      report: (raw, timeMs) => {
        store.getState().session?.markGap(nowMs());
        input.report(raw, timeMs);
      },
      codesDown: input.codesDown,
      isBound: code => boundControls().some(item => item.bindings.flat().includes(code)),
      letStuckGo: (codes, timeMs) => input.letGo(code => codes.includes(code), "stuck", timeMs),
      bench: workBench,
      leave: sleep,
      letAllGo: input.letAllGo,
      rest(isResting, timeMs) {
        if (isResting) input.letAllGo(timeMs);
        store.setState({ isResting });
      },
      hide: (isHidden, timeMs) => {
        const { session, isFrozen } = store.getState();
        if (isHidden) session?.pause(timeMs);
        else if (!isFrozen) session?.resume(timeMs);
      },
      padsChanged: onPads,
    });
    lastReadMs = NaN;
    readOften();
    callOff.turn = world.nextTurn(turn);
  }

  function showLinked(session: LinkedSession | undefined): void {
    if (!store.getState().isLinked) {
      if (!session) return;
      sleep();
      store.setState({ ...UNTOUCHED, isRecording: true, isLinked: true });
    }
    if (session) store.setState({ session, frame: session.state.frame });
    else store.setState({ ...UNTOUCHED, session, isRecording: false, isLinked: false });
  }

  function sleep(): void {
    const { session, isRecording, isLinked } = store.getState();
    if (!session) return;
    succession.drop();
    if (isLinked) return showLinked(undefined);
    callOff.turn();
    callOff.reads();
    stopListening();
    input.letAllGo(nowMs());
    session.resume(nowMs());
    session.advance(nowMs() + 2000 / session.program.rateHz);
    store.setState({
      session: undefined,
      isRecording: false,
      isFrozen: false,
      isResting: false,
      place: undefined,
      speedPercent: 100,
      frame: -1,
    });
    recorder.end(session);
    if (!isRecording) offerEnded(store, session, world.setTimer);
  }

  function freeze(): void {
    const { session, isFrozen } = store.getState();
    if (!session) return;
    if (isFrozen) session.resume(nowMs());
    else session.pause(nowMs());
    store.setState({ isFrozen: !isFrozen, frame: session.state.frame });
  }

  function step(): void {
    const { session, isFrozen } = store.getState();
    if (!session || !isFrozen) return;
    session.stepOnce();
    store.setState({ frame: session.state.frame });
  }

  function setSpeed(percent: number): void {
    store.getState().session?.setSpeed(percent);
    store.setState({ speedPercent: percent });
  }

  /** Handles a bench key, like the bench buttons. Stepping a running game first freezes it. */
  function workBench(act: BenchAct): void {
    const { isFrozen, speedPercent } = store.getState();
    if (act === "wide") return store.setState(flipWide);
    if (act === "mark") return succession.markPlace();
    if (act === "back" || act === "again") return succession.goBack(act === "back" ? "mark" : "recent");
    if (act === "freeze" || (act === "step" && !isFrozen)) freeze();
    else if (act === "step") step();
    else setSpeed(nextSpeed(speedPercent, act === "slower" ? -1 : 1));
  }

  workbench.onLeave(() => {
    sleep();
    store.setState(UNTOUCHED);
  });
  evaluation.subscribe((now, before) => {
    const { session } = store.getState();
    const { kit } = workbench.getState();
    if (!session || !kit || now.rules === before.rules) return;
    setControls();
    if (before.rules && now.rules && playAlike(now.rules.kit, before.rules.kit))
      input.updateControls(nowMs());
    else succession.changeRules();
  });

  return {
    ...store,
    wake,
    sleep,
    showLinked,
    keep() {
      const { session, ended } = store.getState();
      const played = session ?? ended;
      const take = played && workbench.mayEdit() ? recorder.takePlayed(played, nanoid(8)) : undefined;
      if (!take) return;
      workbench.addTake(take);
      store.setState({ ended: undefined });
    },
    freeze,
    step,
    toggleWide: () => store.setState(flipWide),
    markPlace: succession.markPlace,
    goBack: succession.goBack,
    seen,
    setAssist(assistId) {
      store.setState({ assist: assistId });
      setControls();
      succession.changeRules();
    },
    setSpeed,
    report: input.report,
    holdOnScreen(...stones) {
      if (store.getState().isLinked) return;
      if (stones.some(([, value]) => value > 0) && !store.getState().session) wake();
      input.holdOnScreen(stones, nowMs());
    },
    tryMode(modeId) {
      const { session } = store.getState();
      const gate = session ? findGate(session, trialGate(modeId)) : -1;
      if (session && gate >= 0) session.pulseGate(gate);
    },
    turnGate(gateId) {
      const { session } = store.getState();
      const gate = session ? findGate(session, gateId) : -1;
      if (session && gate >= 0) session.setGate(gate, session.state.painted[gate] === 0);
    },
    letAllGo: () => input.letAllGo(nowMs()),
    refreshPads,
    maps: world.maps,
    readFigures: () => figures.read(),
  };
}
