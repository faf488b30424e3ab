import type { StoreApi } from "zustand/vanilla";
import type { Rules } from "#stage";
import type { LiveSession, Successor } from "./liveSession";
import type { PadState } from "./padState";

/** How far back "again" goes, in seconds. */
const AGAIN_SECONDS = 2;

/** The longest time for which other rules catch up between two pictures. */
const RULES_SLICE_MS = 5;

/** The sessions of a pad that take each other's place: under changed rules, or from an earlier frame. */
export interface Succession {
  /**
   * Handles a change of the rules: the session goes on under them, once the input so far is run through them. Longer
   * sessions are run in slices between pictures.
   */
  readonly changeRules: () => void;
  /** Runs a slice; call it between two pictures. */
  readonly catchUp: () => void;
  readonly drop: () => void;
  readonly markPlace: () => void;
  readonly goBack: (where: "mark" | "recent") => void;
}

interface SuccessionWorld {
  readonly store: StoreApi<PadState>;
  readonly toPlay: (isRecording: boolean) => Rules | undefined;
  readonly nowMs: () => number;
  /** Updates every control of the new session to match the codes that are held. */
  readonly updateControls: (timeMs: number) => void;
  /** Keeps the recording of a session that ends with a return to a frame; another one begins with what both share. */
  readonly keepTry: (session: LiveSession, frame: number) => void;
}

/** Creates the succession of a pad's sessions. */
export function createSuccession({
  store,
  toPlay,
  nowMs,
  updateControls,
  keepTry,
}: SuccessionWorld): Succession {
  /** The session under changed rules that catches up with the present one. */
  let successor: Successor | undefined;

  function show(session: LiveSession, change: Partial<PadState> = {}): void {
    store.setState({ session, frame: session.state.frame, ...change });
    updateControls(nowMs());
  }

  function catchUp(): void {
    const beganAtMs = nowMs();
    const next = successor?.catchUp(() => nowMs() - beganAtMs < RULES_SLICE_MS);
    if (!next) return;
    successor = undefined;
    show(next);
  }

  function changeRules(): void {
    const { session, isRecording } = store.getState();
    const rules = toPlay(isRecording);
    successor = undefined;
    if (!session || !rules || rules === session.rules) return;
    successor = session.under(rules);
    catchUp();
  }

  return {
    changeRules,
    catchUp,
    drop: () => void (successor = undefined),
    markPlace() {
      const { session, isLinked } = store.getState();
      if (session && !isLinked) store.setState({ place: session.place() });
    },
    goBack(where) {
      const { session, isRecording, isLinked, place } = store.getState();
      if (!session || isLinked) return;
      const to = where === "mark" ? place : session.placeBefore(AGAIN_SECONDS * session.program.rateHz);
      if (!to || to.frame > session.state.frame) return;
      successor = undefined;
      if (isRecording) keepTry(session, to.frame);
      // A mark beyond it belongs to frames that are played anew.
      const isAhead = place !== undefined && place.frame > to.frame;
      show(session.backTo(to, nowMs()), isAhead ? { place: undefined } : {});
      changeRules();
    },
  };
}
