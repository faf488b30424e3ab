import { nanoid } from "nanoid";
import { createStore, type StoreApi } from "zustand/vanilla";
import { applyAssist, findAssist, listPatternSights, type Assist, type Kit, type Take } from "#core";
import type { Rules } from "#stage";
import type { Evaluation } from "../document/evaluation";
import type { NextTurn } from "../document/playback";
import type { Workbench } from "../document/workbench";
import { applyLayout } from "../edits/edits";
import type { Judge } from "../judging/judge";
import type { Library } from "../storage/library";
import type { Tabs } from "../storage/tabs";
import { nextSpeed, type BenchAct } from "./benchKeys";
import type { PadReading } from "./gamepads";
import { createPadPoller, type PadsStatus } from "./gamepads";
import { createHeld, type DropReason, type RawReport } from "./held";
import { createLiveSession, type LiveSession } from "./liveSession";
import type { PageListener } from "./pageEvents";
import { createRecorder, type Recorder } from "./recorder";
import { takeOf } from "./recording";
import { createFigureKeeper, type FigureKeeper, type SessionFigures } from "./sessionFigures";
import { trialGate, withTrialSwitches } from "./trialModes";

/** One device report: its time, its content, and the frame it landed on or the reason it was dropped. */
export interface RawEvent {
  readonly key: number;
  readonly code: string;
  readonly value: number;
  /** Since the pad was woken. */
  readonly timeMs: number;
  /** The frame on which a control changed because of it; −1 for none. */
  readonly frame: number;
  readonly dropped: DropReason | "unheard" | "focus lost" | "unplugged" | "stuck";
  readonly isStretched: boolean;
}

/** The state of the pad: asleep, or awake and running the kit. While awake, keys belong to the kit. */
export interface PadState {
  readonly session: LiveSession | undefined;
  readonly isRecording: boolean;
  readonly isFrozen: boolean;
  readonly speedPercent: number;
  /** The active assist, by id. */
  readonly assist: string | undefined;
  /** The kind of device used last; prompts name its buttons. */
  readonly inHand: "key" | "pad" | "mouse";
  /** The last stepped frame; increases while awake. */
  readonly frame: number;
  readonly log: readonly RawEvent[];
  readonly repeatsDropped: number;
  /** Codes held now, and the maximum held together since the pad was woken. */
  readonly codesDown: readonly string[];
  readonly mostTogether: readonly string[];
  /** Pairs of codes seen held together, each as "a b" in alphabetical order. */
  readonly pairsSeen: ReadonlySet<string>;
  readonly pads: PadsStatus;
}

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
  /** Stores what was played since the pad was woken as a new take of the open kit. */
  readonly keep: () => void;
  /** Stops or continues the clock. Input meanwhile lands on the next frame. */
  readonly freeze: () => void;
  /** Steps one frame while the clock is stopped. */
  readonly step: () => void;
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
  /** Detects connected pads, awake or not. */
  readonly refreshPads: () => void;
  /** Returns the measurements since the pad was last woken. */
  readonly readFigures: () => SessionFigures;
}

export interface PadWorld {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly judge: Judge;
  readonly library: Pick<Library, "addChunk">;
  readonly tabs: Pick<Tabs, "markAlive">;
  /** The page's clock, which stamps its events, in ms. */
  readonly nowMs: () => number;
  readonly nextTurn: NextTurn;
  readonly setTimer: (ms: number, run: () => void) => () => void;
  readonly listen: (listener: PageListener) => () => void;
  /** Reads the pads; undefined if the browser has no such API. */
  readonly readPads: (() => readonly (PadReading | null)[]) | undefined;
}

const LOG_LENGTH = 60;
/** Sessions longer than this run through other rules only when input pauses. Frames. */
const QUICK_FRAMES = 1800;
const REST_MS = 150;

const UNTOUCHED = {
  frame: -1,
  log: [],
  repeatsDropped: 0,
  codesDown: [],
  mostTogether: [],
  pairsSeen: new Set<string>(),
} as const;

type Entry = Pick<RawEvent, "code" | "value" | "dropped"> & Partial<Pick<RawEvent, "frame" | "isStretched">>;

interface Settled {
  readonly frame: number;
  readonly isStretched: boolean;
  readonly control: number;
}

/** Returns whether any rule sees a control in the current mode. */
function isSeen({ program, state }: LiveSession, control: number): boolean {
  return listPatternSights(program, control, state.mode).some(sight => sight.verdict === "hears");
}

function findGate({ program }: LiveSession, gateId: string): number {
  return program.gates.findIndex(gate => gate.id === gateId);
}

/** Returns the part of a kit that affects play: everything except names, bindings and the like. */
function playedOf(kit: Kit): string {
  const { name, controls, ...rules } = kit;
  return JSON.stringify([
    rules,
    controls.map(({ id, pressAt, releaseAt, toggle }) => [id, pressAt, releaseAt, toggle]),
  ]);
}

/** Returns whether two versions of a kit play alike and differ only in names or bindings. */
function playAlike(a: Kit, b: Kit): boolean {
  return a.id === b.id && playedOf(a) === playedOf(b);
}

/** Creates the pad of one page, asleep. */
export function createPad(world: PadWorld): Pad {
  const { workbench, evaluation, judge, library, tabs, nowMs } = world;
  const held = createHeld();
  const poller = createPadPoller(world.readPads);
  const store = createStore<PadState>(() => ({
    ...UNTOUCHED,
    session: undefined,
    isRecording: false,
    isFrozen: false,
    speedPercent: 100,
    assist: undefined,
    inHand: "key",
    pads: { hasApi: true, pads: [] },
  }));
  let figures: FigureKeeper = createFigureKeeper();
  let recorder: Recorder | undefined;
  let endGuard = () => {};
  let assisted: { readonly from: Rules; readonly assist: Assist; readonly made: Rules } | undefined;
  let callOffTurn = () => {};
  let callOffRules = () => {};
  let stopListening = () => {};
  let nextKey = 0;
  let beganMs = 0;

  function log(entry: Entry, timeMs: number): void {
    const event = { frame: -1, isStretched: false, ...entry, key: nextKey++, timeMs: timeMs - beganMs };
    store.setState({ log: [event, ...store.getState().log].slice(0, LOG_LENGTH) });
  }

  /** Updates the codes held now, and those ever held together. */
  function noteTogether(): void {
    const codesDown = held.codesDown();
    const { mostTogether, pairsSeen } = store.getState();
    const pairs = codesDown.flatMap((a, i) => codesDown.slice(i + 1).map(b => [a, b].sort().join(" ")));
    const isNew = pairs.some(pair => !pairsSeen.has(pair));
    store.setState({
      codesDown,
      mostTogether: codesDown.length > mostTogether.length ? codesDown : mostTogether,
      pairsSeen: isNew ? new Set([...pairsSeen, ...pairs]) : pairsSeen,
    });
  }

  /** Updates every control to match what is held. Returns the last resulting edge. */
  function updateControls(timeMs: number): Settled | undefined {
    const { session } = store.getState();
    let last: Settled | undefined;
    session?.program.controls.forEach((control, c) => {
      const landing = session.setControl(c, held.valueOf(control.id), timeMs);
      if (!landing) return;
      figures.edge(control.id, landing.isDown, timeMs, landing.frame, landing.isStretched);
      last = { frame: landing.frame, isStretched: landing.isStretched, control: c };
    });
    return last;
  }

  function report(raw: RawReport, timeMs: number): void {
    const { session, repeatsDropped } = store.getState();
    if (!session) return;
    const isCrossing = raw.value >= 0.5 !== held.codesDown().includes(raw.code);
    const dropped = held.report(raw);
    if (dropped === "same") return;
    if (dropped === "repeat") {
      figures.repeat();
      store.setState({ repeatsDropped: repeatsDropped + 1 });
      log({ code: raw.code, value: raw.value, dropped }, timeMs);
      return;
    }
    noteTogether();
    const [inHand] = raw.code.split(":");
    if (inHand === "key" || inHand === "pad" || inHand === "mouse") store.setState({ inHand });
    const settled = updateControls(timeMs);
    if (!settled && !isCrossing) return;
    const isUnseen =
      dropped === "" && settled !== undefined && raw.value > 0 && !isSeen(session, settled.control);
    log({ code: raw.code, value: raw.value, dropped: isUnseen ? "unheard" : dropped, ...settled }, timeMs);
  }

  /**
   * Releases everything: the window has lost the keyboard and will not receive the keyup events, or it was
   * requested.
   */
  function letAllGo(timeMs: number): void {
    const wasHeld = held.isHeld();
    held.letAllGo();
    poller.reset();
    noteTogether();
    const settled = updateControls(timeMs);
    if (store.getState().session && wasHeld)
      log({ code: "window:", value: 0, dropped: "focus lost", ...settled }, timeMs);
  }

  /** Releases codes whose keyup event will not come. */
  function letGo(isGone: (code: string) => boolean, dropped: "unplugged" | "stuck", timeMs: number): void {
    const gone = held.letGo(isGone);
    if (gone.length === 0) return;
    noteTogether();
    const settled = updateControls(timeMs);
    for (const code of gone) log({ code, value: 0, dropped, ...settled }, timeMs);
  }

  const refreshPads = () => store.setState({ pads: poller.status() });

  function onPads(): void {
    const before = store.getState().pads.pads.length;
    refreshPads();
    if (store.getState().pads.pads.length < before)
      letGo(code => code.startsWith("pad:"), "unplugged", nowMs());
  }

  function turn(now: number): void {
    const { session } = store.getState();
    if (!session) return;
    poller.poll((code, value) => report({ code, value, isRepeat: false }, now));
    figures.turn(now);
    if (session.advance(now) > 0) {
      figures.ran(session.state.frame, nowMs());
      store.setState({ frame: session.state.frame });
    }
    recorder?.keepUp(session, now);
    callOffTurn = world.nextTurn(turn);
  }

  /** Returns the active assist, if the kit still has it. */
  function assistNow(kit: Kit | undefined): Assist | undefined {
    return kit && findAssist(kit, store.getState().assist);
  }

  /** Returns the open rules with the active assist applied; cached. */
  function assistedRules(): Rules | undefined {
    const { rules } = evaluation.getState();
    const assist = assistNow(rules?.kit);
    if (!rules || !assist) return rules;
    if (assisted?.from !== rules || assisted.assist !== assist)
      assisted = { from: rules, assist, made: judge.rulesOf(applyAssist(rules.kit, assist)) ?? rules };
    return assisted.made;
  }

  /** Returns the rules to play: with manual switches to every mode, unless recording. */
  function rulesToPlay(isRecording: boolean): Rules | undefined {
    const rules = assistedRules();
    if (!rules || isRecording || !rules.kit.modes?.length) return rules;
    return judge.rulesOf(withTrialSwitches(rules.kit)) ?? rules;
  }

  /** Returns the controls with their current keys, including the layout of the active assist. */
  function boundControls(): Kit["controls"] {
    const { kit, layouts } = workbench.getState();
    const layout = layouts.find(({ id }) => id === assistNow(kit)?.layout);
    if (!kit) return [];
    return layout ? applyLayout(kit, layout).controls : kit.controls;
  }

  function wake(isRecording = false): void {
    const { kit, holder } = workbench.getState();
    const rules = rulesToPlay(isRecording);
    if (!kit || !rules) return;
    // A tab that may not write cannot keep a recording, so it is refused in advance.
    if (isRecording && holder !== "ours" && !workbench.mayEdit()) return;
    sleep();
    beganMs = nowMs();
    figures = createFigureKeeper();
    held.setControls(boundControls());
    poller.reset();
    endGuard = isRecording ? workbench.guardPast() : () => {};
    recorder = isRecording ? createRecorder(library, tabs, kit.id, nanoid(8), isOwnGate(kit)) : undefined;
    store.setState({
      ...UNTOUCHED,
      session: createLiveSession(rules, beganMs),
      isRecording,
      pads: poller.status(),
    });
    stopListening = world.listen({
      report,
      codesDown: held.codesDown,
      isBound: code => boundControls().some(item => item.bindings.flat().includes(code)),
      letStuckGo: (codes, timeMs) => letGo(code => codes.includes(code), "stuck", timeMs),
      bench: workBench,
      leave: sleep,
      letAllGo,
      hide: (isHidden, timeMs) => {
        const { session, isFrozen } = store.getState();
        if (isHidden) session?.pause(timeMs);
        else if (!isFrozen) session?.resume(timeMs);
      },
      padsChanged: onPads,
    });
    callOffTurn = world.nextTurn(turn);
  }

  /** Excludes manually held gates that only serve to try a mode; they get no lane. */
  function isOwnGate(kit: Kit): (gateId: string) => boolean {
    return gateId => kit.gates?.some(gate => gate.id === gateId) ?? false;
  }

  /** Returns what was played as a take; undefined if no frame was. */
  function takePlayed(session: LiveSession, id: string): Take | undefined {
    const { kit } = workbench.getState();
    if (!kit || session.state.frame < 0) return undefined;
    const named = { id, name: workbench.nameRecording(), kitId: session.rules.kit.id };
    const assist = assistNow(kit);
    const take = takeOf(session.recording, session.state.frame + 1, named, isOwnGate(kit));
    return assist ? { ...take, note: `played with “${assist.name}” on` } : take;
  }

  function sleep(): void {
    const { session, isRecording } = store.getState();
    if (!session) return;
    callOffTurn();
    callOffRules();
    stopListening();
    letAllGo(nowMs());
    session.resume(nowMs());
    session.advance(nowMs() + 2000 / session.program.rateHz);
    store.setState({
      session: undefined,
      isRecording: false,
      isFrozen: false,
      speedPercent: 100,
      frame: -1,
    });
    endGuard();
    const ended = recorder;
    recorder = undefined;
    if (!isRecording || !ended) return;
    const take = takePlayed(session, ended.id);
    if (!take) return ended.end();
    void workbench.keepRecording({
      take,
      what: `recorded ${take.name}`,
      finish: whole => ended.finish(session, whole),
      end: ended.end,
    });
  }

  /** Handles a change of the rules: a recording is run through the new ones, a try-out restarts. */
  function takeUpRules(): void {
    const { session, isRecording, isFrozen } = store.getState();
    const rules = rulesToPlay(isRecording);
    if (!session || !rules || rules === session.rules) return;
    callOffRules();
    if (isRecording) {
      const isQuick = session.state.frame <= QUICK_FRAMES;
      const goOn = () => {
        const { session: now } = store.getState();
        const latest = rulesToPlay(true);
        if (!now || !latest || now.rules === latest) return;
        store.setState({ session: now.underRules(latest), frame: now.state.frame });
        updateControls(nowMs());
      };
      if (isQuick) goOn();
      else callOffRules = world.setTimer(REST_MS, goOn);
      return;
    }
    letAllGo(nowMs());
    const anew = createLiveSession(rules, nowMs());
    if (isFrozen) anew.pause(nowMs());
    store.setState({ session: anew, frame: -1 });
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
    held.setControls(boundControls());
    if (before.rules && now.rules && playAlike(now.rules.kit, before.rules.kit)) updateControls(nowMs());
    else takeUpRules();
  });

  return {
    ...store,
    wake,
    sleep,
    keep() {
      const { session } = store.getState();
      const take = session && workbench.mayEdit() ? takePlayed(session, nanoid(8)) : undefined;
      if (take) workbench.addTake(take);
    },
    freeze,
    step,
    setAssist(assistId) {
      store.setState({ assist: assistId });
      held.setControls(boundControls());
      takeUpRules();
    },
    setSpeed,
    report,
    holdOnScreen(...stones) {
      if (stones.some(([, value]) => value > 0) && !store.getState().session) wake();
      const timeMs = nowMs();
      for (const [controlId, value] of stones) held.holdOnScreen(controlId, value);
      const settled = updateControls(timeMs);
      const [last] = stones;
      if (settled && last)
        log({ code: `screen:${last[0]}`, value: last[1], dropped: "", ...settled }, timeMs);
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
    letAllGo: () => letAllGo(nowMs()),
    refreshPads,
    readFigures: () => figures.read(),
  };
}
