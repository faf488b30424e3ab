import type { StoreApi } from "zustand/vanilla";
import { listPatternSights, listPromptsFailedBy, type Kit } from "#core";
import { bodyUseOf } from "#stage";
import { createHeld, type RawReport } from "./held";
import type { LiveSession } from "./liveSession";
import type { PadState, RawEvent } from "./padState";
import type { FigureKeeper } from "./sessionFigures";

/** The held controls of a pad, and its log. */
export interface PadInput {
  /** Handles a device report: drops repeats, lands it on a frame, logs it. */
  readonly report: (raw: RawReport, timeMs: number) => void;
  /** Releases everything: the window has lost the keyboard, or it was requested. */
  readonly letAllGo: (timeMs: number) => void;
  /** Releases codes whose keyup event will not come. */
  readonly letGo: (isGone: (code: string) => boolean, dropped: "unplugged" | "stuck", timeMs: number) => void;
  /** Sets controls of the on-screen pad. */
  readonly holdOnScreen: (
    stones: readonly (readonly [controlId: string, value: number])[],
    timeMs: number,
  ) => void;
  readonly setControls: (controls: Kit["controls"], sticks: NonNullable<Kit["sticks"]>) => void;
  /** Updates every control of the session to match what is held. */
  readonly updateControls: (timeMs: number) => void;
  readonly codesDown: () => readonly string[];
}

interface InputWorld {
  readonly store: StoreApi<PadState>;
  readonly figures: () => FigureKeeper;
  /** Returns the time at which the pad was woken, in ms. */
  readonly beganMs: () => number;
  /** Called when everything is released. */
  readonly onAllGone: () => void;
}

const LOG_LENGTH = 60;

type Entry = Pick<RawEvent, "code" | "value" | "dropped"> & Partial<Pick<RawEvent, "frame" | "isStretched">>;

interface Settled {
  readonly frame: number;
  readonly isStretched: boolean;
  readonly control: number;
}

/** Returns whether a rule or a body of the stage uses a control in the present mode. */
function isUsed({ rules, program, state }: LiveSession, control: number): boolean {
  const sights = listPatternSights(program, control, state.mode);
  if (sights.some(({ verdict }) => verdict === "hears" || verdict === "cancels")) return true;
  if (listPromptsFailedBy(program, control, state.mode).length > 0) return true;
  return bodyUseOf(rules.kit, program.controls[control]!.id)?.isByRules === false;
}

/** Creates the input of a pad, with nothing held. */
export function createPadInput({ store, figures, beganMs, onAllGone }: InputWorld): PadInput {
  const held = createHeld();
  let nextKey = 0;

  function log(entry: Entry, timeMs: number): void {
    const event = { frame: -1, isStretched: false, ...entry, key: nextKey++, timeMs: timeMs - beganMs() };
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
      figures().edge(control.id, landing.isDown, timeMs, landing.frame, landing.isStretched);
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
      figures().repeat();
      store.setState({ repeatsDropped: repeatsDropped + 1 });
      log({ code: raw.code, value: raw.value, dropped }, timeMs);
      return;
    }
    noteTogether();
    const [device] = raw.code.split(":");
    const inHand = device!.startsWith("pad") ? "pad" : device === "wheel" ? "mouse" : device;
    if (inHand === "key" || inHand === "pad" || inHand === "mouse") store.setState({ inHand });
    const settled = updateControls(timeMs);
    if (!settled && !isCrossing) return;
    const isUnused =
      dropped === "" && settled !== undefined && raw.value > 0 && !isUsed(session, settled.control);
    log({ code: raw.code, value: raw.value, dropped: isUnused ? "unused" : dropped, ...settled }, timeMs);
  }

  function letAllGo(timeMs: number): void {
    const wasHeld = held.isHeld();
    held.letAllGo();
    onAllGone();
    noteTogether();
    const settled = updateControls(timeMs);
    if (store.getState().session && wasHeld)
      log({ code: "window:", value: 0, dropped: "focus lost", ...settled }, timeMs);
  }

  function letGo(isGone: (code: string) => boolean, dropped: "unplugged" | "stuck", timeMs: number): void {
    const gone = held.letGo(isGone);
    if (gone.length === 0) return;
    noteTogether();
    const settled = updateControls(timeMs);
    for (const code of gone) log({ code, value: 0, dropped, ...settled }, timeMs);
  }

  return {
    report,
    letAllGo,
    letGo,
    holdOnScreen(stones, timeMs) {
      for (const [controlId, value] of stones) held.holdOnScreen(controlId, value);
      const settled = updateControls(timeMs);
      const [last] = stones;
      if (settled && last)
        log({ code: `screen:${last[0]}`, value: last[1], dropped: "", ...settled }, timeMs);
    },
    setControls: held.setControls,
    updateControls,
    codesDown: held.codesDown,
  };
}
