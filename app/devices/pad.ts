import { nanoid } from "nanoid";
import { createStore } from "zustand/vanilla";
import { addTake, compileOnce, workbench } from "../store/workbench";
import { isBound } from "./codes";
import { createLiveSession, type LiveSession } from "./liveSession";

/** One thing a device reported: when, what, and the frame it landed on or why it was dropped. */
export interface RawEvent {
  readonly key: number;
  readonly code: string;
  readonly isDown: boolean;
  /** The frame on which a control changed because of it; −1 for none. */
  readonly frame: number;
  readonly dropped: "" | "repeat" | "not bound" | "focus lost";
}

/** The pad: asleep, or awake and running the kit. While awake, keys belong to the kit. */
export interface Pad {
  readonly session: LiveSession | undefined;
  readonly isRecording: boolean;
  /** The last frame stepped; rises while awake. */
  readonly frame: number;
  readonly log: readonly RawEvent[];
  readonly repeatsDropped: number;
  /** Controls held by the on-screen pad. */
  readonly held: ReadonlySet<string>;
}

const LOG_LENGTH = 40;

export const pad = createStore<Pad>(() => ({
  session: undefined,
  isRecording: false,
  frame: -1,
  log: [],
  repeatsDropped: 0,
  held: new Set(),
}));

const codesDown = new Set<string>();
let animation = 0;
let nextKey = 0;

function record(event: Omit<RawEvent, "key">): void {
  const { log } = pad.getState();
  pad.setState({ log: [{ ...event, key: nextKey++ }, ...log].slice(0, LOG_LENGTH) });
}

/** Brings every control in line with the codes and on-screen buttons now down. Returns the frame of the last edge made. */
function settleControls(timeMs: number): number {
  const { session, held } = pad.getState();
  const kit = workbench.getState().kit;
  if (!session || !kit) return -1;
  let landed = -1;
  session.program.controls.forEach((control, c) => {
    const bindings = kit.controls.find(item => item.id === control.id)?.bindings ?? [];
    const isDown = held.has(control.id) || isBound(bindings, codesDown);
    landed = Math.max(landed, session.setControl(c, isDown ? 1 : 0, timeMs));
  });
  return landed;
}

/** A code reported by a device while the pad is awake. */
export function reportCode(code: string, isDown: boolean, isRepeat: boolean, timeMs: number): void {
  const { session, repeatsDropped } = pad.getState();
  if (!session) return;
  if (isRepeat || (isDown && codesDown.has(code))) {
    pad.setState({ repeatsDropped: repeatsDropped + 1 });
    record({ code, isDown, frame: -1, dropped: "repeat" });
    return;
  }
  if (isDown) codesDown.add(code);
  else codesDown.delete(code);
  const isKnown =
    workbench.getState().kit?.controls.some(control => control.bindings.flat().includes(code)) ?? false;
  record({ code, isDown, frame: settleControls(timeMs), dropped: isKnown ? "" : "not bound" });
}

/** A control held, or let go, on the on-screen pad. */
export function holdOnScreen(controlId: string, isDown: boolean, timeMs: number): void {
  const held = new Set(pad.getState().held);
  if (isDown) held.add(controlId);
  else held.delete(controlId);
  pad.setState({ held });
  const frame = settleControls(timeMs);
  if (pad.getState().session) record({ code: `screen:${controlId}`, isDown, frame, dropped: "" });
}

/** Lets every control go: the window has lost the keys and will not hear them come up. */
export function letAllGo(timeMs: number): void {
  const wasDown = codesDown.size > 0 || pad.getState().held.size > 0;
  codesDown.clear();
  pad.setState({ held: new Set() });
  const { session } = pad.getState();
  session?.releaseAll(timeMs);
  if (session && wasDown)
    record({ code: "focus:", isDown: false, frame: session.state.frame + 1, dropped: "focus lost" });
}

function onKey(event: KeyboardEvent): void {
  const isDown = event.type === "keydown";
  if (isDown && event.code === "Escape") {
    event.preventDefault();
    sleepPad();
    return;
  }
  if (event.ctrlKey && event.code !== "ControlLeft" && event.code !== "ControlRight") return;
  if (event.metaKey) return;
  event.preventDefault();
  event.stopPropagation();
  reportCode(`key:${event.code}`, isDown, event.repeat, event.timeStamp);
}

function onVisibility(): void {
  const { session } = pad.getState();
  const now = performance.now();
  if (document.hidden) {
    letAllGo(now);
    session?.pause(now);
  } else session?.resume(now);
}

function onBlur(): void {
  letAllGo(performance.now());
}

function tick(now: number): void {
  const { session } = pad.getState();
  if (!session) return;
  if (session.advance(now) > 0) pad.setState({ frame: session.state.frame });
  animation = requestAnimationFrame(tick);
}

/** Wakes the pad: keys belong to the kit from now on, and the kit runs from frame 0. Nothing happens while the kit has faults. */
export function wakePad(isRecording = false): void {
  const { program } = compileOnce(workbench.getState().kit);
  if (!program) return;
  sleepPad();
  const session = createLiveSession(program, performance.now());
  pad.setState({ session, isRecording, frame: -1, log: [], repeatsDropped: 0 });
  window.addEventListener("keydown", onKey, true);
  window.addEventListener("keyup", onKey, true);
  window.addEventListener("blur", onBlur);
  document.addEventListener("visibilitychange", onVisibility);
  animation = requestAnimationFrame(tick);
}

/** Puts the pad to sleep: every control is let go, keys are the page's again, and a recording is kept as a take. */
export function sleepPad(): void {
  const { session, isRecording } = pad.getState();
  if (!session) return;
  cancelAnimationFrame(animation);
  window.removeEventListener("keydown", onKey, true);
  window.removeEventListener("keyup", onKey, true);
  window.removeEventListener("blur", onBlur);
  document.removeEventListener("visibilitychange", onVisibility);
  letAllGo(performance.now());
  session.advance(performance.now() + 2000 / session.program.rateHz);
  pad.setState({ session: undefined, isRecording: false, frame: -1, held: new Set() });
  if (isRecording) keepSession(session);
}

/** Keeps what a session played as a new take of the open kit. */
export function keepSession(session: LiveSession): void {
  const { kit, takes } = workbench.getState();
  if (!kit || session.state.frame < 0) return;
  const used = new Set(takes.map(take => take.name));
  let n = takes.length + 1;
  while (used.has(`Take ${n}`)) n++;
  addTake(session.toTake(nanoid(8), `Take ${n}`, kit.id));
}

/** When the kit changes under the hands, the session goes on with the new rules from frame 0 of a new run. */
workbench.subscribe((now, before) => {
  const { session, isRecording } = pad.getState();
  if (!session || now.kit === before.kit) return;
  const { program } = compileOnce(now.kit);
  if (!program || program === session.program) return;
  if (isRecording) keepSession(session);
  letAllGo(performance.now());
  pad.setState({ session: createLiveSession(program, performance.now()), frame: -1 });
});
