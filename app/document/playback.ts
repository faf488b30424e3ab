import { createStore, type StoreApi } from "zustand/vanilla";
import type { Evaluation } from "./evaluation";

/** A range of frames, both ends included. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/**
 * The playback position in the open take and its settings. Separate from the document, so that it can change
 * without a render.
 */
export interface PlaybackState {
  /** The current frame, and whether playback is running. */
  readonly frame: number;
  readonly isPlaying: boolean;
  /** The playback speed: 1 is the kit's rate. */
  readonly speed: number;
  /** A range to measure, zoom to or loop. */
  readonly stretch: Stretch | undefined;
  readonly isLooping: boolean;
}

/** Playback speeds, in ascending order. */
export const SPEEDS = [0.125, 0.25, 0.5, 1, 2] as const;

export interface Playback extends Pick<
  StoreApi<PlaybackState>,
  "getState" | "getInitialState" | "subscribe" | "setState"
> {
  /** Returns the number of frames of the open take; 0 without one. */
  readonly frames: () => number;
  /** Moves the playhead to a frame of the open take, and stops playback. */
  readonly goTo: (frame: number) => void;
  /** Starts playback, from the beginning if the playhead is at the end; or stops it. */
  readonly toggle: () => void;
  readonly stop: () => void;
}

/**
 * Schedules a callback for the next animation frame, with its time in ms; returns a function that cancels it.
 */
export type NextTurn = (run: (nowMs: number) => void) => () => void;

const AT_REST = { frame: 0, isPlaying: false, stretch: undefined, isLooping: false };

/**
 * Creates the playback of the open take. Opening another take, or none, resets it in the same task. Leaving
 * the kit stops it.
 */
export function createPlayback(evaluation: StoreApi<Evaluation>, nextTurn: NextTurn): Playback {
  const store = createStore<PlaybackState>(() => ({ ...AT_REST, speed: 1 }));
  let callOff: (() => void) | undefined;

  const frames = () => evaluation.getState().evaluated?.trace.frames ?? 0;

  function stop(): void {
    callOff?.();
    callOff = undefined;
    if (store.getState().isPlaying) store.setState({ isPlaying: false });
  }

  function run(): void {
    const { frame, speed, stretch, isLooping } = store.getState();
    const rateHz = evaluation.getState().rules?.program.rateHz ?? 60;
    const loop = isLooping ? stretch : undefined;
    const first = loop?.from ?? 0;
    const last = Math.min(frames() - 1, loop?.to ?? frames() - 1);
    const from = frame >= last || frame < first ? first : frame;
    let beganMs: number | undefined;
    store.setState({ frame: from, isPlaying: true });
    const tick = (nowMs: number) => {
      beganMs ??= nowMs;
      const passed = Math.max(0, Math.floor(((nowMs - beganMs) * rateHz * speed) / 1000));
      const at = loop
        ? first + ((from - first + passed) % (last - first + 1))
        : Math.min(last, from + passed);
      if (loop === undefined && at >= last) {
        callOff = undefined;
        store.setState({ frame: at, isPlaying: false });
        return;
      }
      if (store.getState().frame !== at) store.setState({ frame: at });
      callOff = nextTurn(tick);
    };
    callOff = nextTurn(tick);
  }

  evaluation.subscribe(({ evaluated }, before) => {
    const isOther = evaluated?.take.id !== before.evaluated?.take.id;
    if (!isOther && evaluated?.rules.kit.id === before.evaluated?.rules.kit.id) {
      const { frame } = store.getState();
      if (frame > 0 && frame >= frames()) store.setState({ frame: Math.max(0, frames() - 1) });
      return;
    }
    stop();
    store.setState(AT_REST);
  });

  return {
    ...store,
    frames,
    goTo(frame) {
      stop();
      store.setState({ frame: Math.max(0, Math.min(frames() - 1, Math.round(frame))) });
    },
    toggle() {
      if (store.getState().isPlaying) stop();
      else if (frames() > 0) run();
    },
    stop,
  };
}
