import { nanoid } from "nanoid";
import { createStore } from "zustand/vanilla";
import { listHearers, type Kit, type Program } from "#core";
import { compileFresh } from "../judging/compileFresh";
import { stageOfProgram } from "../judging/staged";
import { addTake, compileOnce, workbench } from "../document/workbench";
import { browserPads, createPadPoller, type PadsStatus } from "./gamepads";
import { createHands, type DropReason, type RawReport } from "./hands";
import { createLiveSession, type LiveSession } from "./liveSession";
import { listenToPage } from "./pageEvents";
import { createFigureKeeper, type FigureKeeper, type SessionFigures } from "./sessionFigures";
import { withTrialSwitches } from "./trialModes";

/** One thing a device reported: when, what, and the frame it landed on or why it was dropped. */
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

/** The pad: asleep, or awake and running the kit. While awake, keys belong to the kit. */
export interface Pad {
  readonly session: LiveSession | undefined;
  readonly isRecording: boolean;
  readonly isFrozen: boolean;
  readonly speedPercent: number;
  /** What kind of device was used last: prompts name its buttons. */
  readonly inHand: "key" | "pad" | "mouse";
  /** The last frame stepped; rises while awake. */
  readonly frame: number;
  readonly log: readonly RawEvent[];
  readonly repeatsDropped: number;
  /** Codes held now, and the most that were ever held together since the pad was woken. */
  readonly codesDown: readonly string[];
  readonly mostTogether: readonly string[];
  /** Pairs of codes that were seen held together, each as "a b" in alphabetical order. */
  readonly pairsSeen: ReadonlySet<string>;
  readonly pads: PadsStatus;
}

const LOG_LENGTH = 60;
const hands = createHands();
const poller = createPadPoller(browserPads());

export const pad = createStore<Pad>(() => ({
  session: undefined,
  isRecording: false,
  isFrozen: false,
  speedPercent: 100,
  inHand: "key",
  frame: -1,
  log: [],
  repeatsDropped: 0,
  codesDown: [],
  mostTogether: [],
  pairsSeen: new Set(),
  pads: { hasApi: true, pads: [] },
}));

let figures: FigureKeeper = createFigureKeeper();
let animation = 0;
let nextKey = 0;
let beganMs = 0;
let stopListening = () => {};

/** What was measured since the pad was last woken. */
export function readFigures(): SessionFigures {
  return figures.read();
}

type Entry = Pick<RawEvent, "code" | "value" | "dropped"> & Partial<Pick<RawEvent, "frame" | "isStretched">>;

function log(entry: Entry, timeMs: number): void {
  const event = { frame: -1, isStretched: false, ...entry, key: nextKey++, timeMs: timeMs - beganMs };
  pad.setState({ log: [event, ...pad.getState().log].slice(0, LOG_LENGTH) });
}

/** Notes which codes are held, and which were ever held together. */
function noteTogether(): void {
  const codesDown = hands.codesDown();
  const { mostTogether, pairsSeen } = pad.getState();
  const pairs = codesDown.flatMap((a, i) => codesDown.slice(i + 1).map(b => [a, b].sort().join(" ")));
  const isNew = pairs.some(pair => !pairsSeen.has(pair));
  pad.setState({
    codesDown,
    mostTogether: codesDown.length > mostTogether.length ? codesDown : mostTogether,
    pairsSeen: isNew ? new Set([...pairsSeen, ...pairs]) : pairsSeen,
  });
}

interface Settled {
  readonly frame: number;
  readonly isStretched: boolean;
  readonly control: number;
}

/** Brings every control in line with what is held. Gives the last edge that made. */
function settleControls(timeMs: number): Settled | undefined {
  const { session } = pad.getState();
  let last: Settled | undefined;
  session?.program.controls.forEach((control, c) => {
    const landing = session.setControl(c, hands.valueOf(control.id), timeMs);
    if (!landing) return;
    figures.edge(control.id, landing.isDown, timeMs, landing.frame, landing.isStretched);
    last = { frame: landing.frame, isStretched: landing.isStretched, control: c };
  });
  return last;
}

/** Does any rule hear a control in the mode that is on? */
function isHeard({ program, state }: LiveSession, control: number): boolean {
  return listHearers(program, control, state.mode).some(hearer => hearer.verdict === "hears");
}

/** What a device reported while the pad is awake: cleaned, landed on a frame, written in the log. */
export function reportRaw(raw: RawReport, timeMs: number): void {
  const { session, repeatsDropped } = pad.getState();
  if (!session) return;
  const isCrossing = raw.value >= 0.5 !== hands.codesDown().includes(raw.code);
  const dropped = hands.report(raw);
  if (dropped === "same") return;
  if (dropped === "repeat") {
    figures.repeat();
    pad.setState({ repeatsDropped: repeatsDropped + 1 });
    log({ code: raw.code, value: raw.value, dropped }, timeMs);
    return;
  }
  noteTogether();
  const [inHand] = raw.code.split(":");
  if (inHand === "key" || inHand === "pad" || inHand === "mouse") pad.setState({ inHand });
  const settled = settleControls(timeMs);
  if (!settled && !isCrossing) return;
  const isUnheard =
    dropped === "" && settled !== undefined && raw.value > 0 && !isHeard(session, settled.control);
  log({ code: raw.code, value: raw.value, dropped: isUnheard ? "unheard" : dropped, ...settled }, timeMs);
}

/** A control held on the on-screen pad, 0 (let go) to 1. */
export function holdOnScreen(controlId: string, value: number, timeMs: number): void {
  hands.holdOnScreen(controlId, value);
  const settled = settleControls(timeMs);
  if (settled) log({ code: `screen:${controlId}`, value, dropped: "", ...settled }, timeMs);
}

/** Lets everything go: the window has lost the keys and will not hear them come up, or someone asks for it. */
export function letAllGo(timeMs: number): void {
  const wasHeld = hands.isHeld();
  hands.letAllGo();
  poller.reset();
  noteTogether();
  const settled = settleControls(timeMs);
  if (pad.getState().session && wasHeld)
    log({ code: "window:", value: 0, dropped: "focus lost", ...settled }, timeMs);
}

/** Lets codes go that will not come up by themselves. */
function letGo(isGone: (code: string) => boolean, dropped: "unplugged" | "stuck", timeMs: number): void {
  const gone = hands.letGo(isGone);
  if (gone.length === 0) return;
  noteTogether();
  const settled = settleControls(timeMs);
  for (const code of gone) log({ code, value: 0, dropped, ...settled }, timeMs);
}

/** Reads what pads are plugged in, awake or not. */
export function refreshPads(): void {
  pad.setState({ pads: poller.status() });
}

function onPads(): void {
  const before = pad.getState().pads.pads.length;
  refreshPads();
  if (pad.getState().pads.pads.length < before)
    letGo(code => code.startsWith("pad:"), "unplugged", performance.now());
}

function tick(now: number): void {
  const { session } = pad.getState();
  if (!session) return;
  poller.poll((code, value) => reportRaw({ code, value, isRepeat: false }, now));
  figures.turn(now);
  if (session.advance(now) > 0) {
    figures.ran(session.state.frame, performance.now());
    pad.setState({ frame: session.state.frame });
  }
  animation = requestAnimationFrame(tick);
}

/** The program that is played: with switches by hand to every mode, unless it is recorded. */
function programToPlay(kit: Kit | undefined, isRecording: boolean): Program | undefined {
  const { program } = compileOnce(kit);
  if (!kit || !program || isRecording || !kit.modes?.length) return program;
  return compileFresh(withTrialSwitches(kit)) ?? program;
}

/** Wakes the pad: keys belong to the kit from now on, and the kit runs from frame 0. Nothing happens while the kit has faults. */
export function wakePad(isRecording = false): void {
  const { kit } = workbench.getState();
  const program = programToPlay(kit, isRecording);
  if (!kit || !program) return;
  sleepPad();
  beganMs = performance.now();
  figures = createFigureKeeper();
  hands.setControls(kit.controls);
  poller.reset();
  const session = createLiveSession(program, beganMs, stageOfProgram(program));
  pad.setState({
    session,
    isRecording,
    frame: -1,
    log: [],
    repeatsDropped: 0,
    codesDown: [],
    mostTogether: [],
    pairsSeen: new Set(),
    pads: poller.status(),
  });
  stopListening = listenToPage({
    report: reportRaw,
    codesDown: hands.codesDown,
    isBound: code =>
      workbench.getState().kit?.controls.some(item => item.bindings.flat().includes(code)) ?? false,
    letStuckGo: (codes, timeMs) => letGo(code => codes.includes(code), "stuck", timeMs),
    leave: sleepPad,
    letAllGo,
    hide: (isHidden, timeMs) => {
      const { session: now } = pad.getState();
      if (isHidden) now?.pause(timeMs);
      else now?.resume(timeMs);
    },
    padsChanged: onPads,
  });
  animation = requestAnimationFrame(tick);
}

/** Puts the pad to sleep: every control is let go, keys are the page's again, and a recording is kept as a take. */
export function sleepPad(): void {
  const { session, isRecording } = pad.getState();
  if (!session) return;
  cancelAnimationFrame(animation);
  stopListening();
  letAllGo(performance.now());
  session.advance(performance.now() + 2000 / session.program.rateHz);
  pad.setState({ session: undefined, isRecording: false, isFrozen: false, speedPercent: 100, frame: -1 });
  if (isRecording) keepSession(session);
}

/** Stops the clock where it stands, or lets it run on. What hands do meanwhile lands on the frame after. */
export function freezePad(): void {
  const { session, isFrozen } = pad.getState();
  if (!session) return;
  const now = performance.now();
  if (isFrozen) session.resume(now);
  else session.pause(now);
  pad.setState({ isFrozen: !isFrozen });
}

/** Runs one frame while the clock is stopped. */
export function stepPad(): void {
  const { session, isFrozen } = pad.getState();
  if (!session || !isFrozen) return;
  session.stepOnce();
  pad.setState({ frame: session.state.frame });
}

/** The speed of the game clock from the next frame on, percent; it is written into what is recorded. */
export function setPadSpeed(percent: number): void {
  pad.getState().session?.setSpeed(percent);
  pad.setState({ speedPercent: percent });
}

/** Keeps what a session played as a new take of the open kit. */
export function keepSession(session: LiveSession): void {
  const { kit, takes } = workbench.getState();
  if (!kit || session.state.frame < 0) return;
  const used = new Set(takes.map(take => take.name));
  let n = takes.length + 1;
  while (used.has(`Take ${n}`)) n++;
  const take = session.toTake(nanoid(8), `Take ${n}`, kit.id);
  const gates = Object.entries(take.gates ?? {}).filter(([id]) => kit.gates?.some(gate => gate.id === id));
  const { gates: all, ...bare } = take;
  addTake(gates.length > 0 ? { ...bare, gates: Object.fromEntries(gates) } : bare);
}

const RULES = [
  "sticks",
  "gates",
  "patterns",
  "moves",
  "modes",
  "start",
  "switches",
  "prompts",
  "queue",
  "rate",
  "stage",
] as const;

/** Do two versions of a kit play alike, so that only names or bindings differ? */
function playAlike(a: Kit, b: Kit): boolean {
  const played = (kit: Kit) => kit.controls.map(({ id, pressAt, releaseAt }) => [id, pressAt, releaseAt]);
  return (
    RULES.every(field => a[field] === b[field]) && JSON.stringify(played(a)) === JSON.stringify(played(b))
  );
}

/** When the rules change under the hands, the session goes on with the new ones from frame 0; a change of bindings goes on as it is. */
workbench.subscribe((now, before) => {
  const { session, isRecording } = pad.getState();
  if (!session || !now.kit || now.kit === before.kit) return;
  hands.setControls(now.kit.controls);
  if (before.kit && playAlike(now.kit, before.kit)) {
    settleControls(performance.now());
    return;
  }
  const program = programToPlay(now.kit, isRecording);
  if (!program || program === session.program) return;
  if (isRecording) keepSession(session);
  letAllGo(performance.now());
  pad.setState({
    session: createLiveSession(program, performance.now(), stageOfProgram(program)),
    frame: -1,
  });
});
