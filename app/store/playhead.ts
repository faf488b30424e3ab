import { createStore } from "zustand/vanilla";

/** The frame everything looks at, and whether it runs by itself. Kept apart, so that it can move without a render. */
export interface Playhead {
  readonly frame: number;
  readonly isPlaying: boolean;
}

export const playhead = createStore<Playhead>(() => ({ frame: 0, isPlaying: false }));

/** Puts the playhead on a frame of a take with this many frames, and stops it. */
export function goToFrame(frame: number, frames: number): void {
  playhead.setState({ frame: Math.max(0, Math.min(frames - 1, Math.round(frame))), isPlaying: false });
}

/** Lets the playhead run, from the start again if it stands at the end; returns how to stop it. */
export function playFrom(rateHz: number, frames: number): () => void {
  const from = playhead.getState().frame >= frames - 1 ? 0 : playhead.getState().frame;
  playhead.setState({ frame: from, isPlaying: true });
  const began = performance.now();
  let request = requestAnimationFrame(function tick(now) {
    if (!playhead.getState().isPlaying) return;
    const frame = Math.min(frames - 1, from + Math.floor(((now - began) * rateHz) / 1000));
    playhead.setState({ frame: Math.max(from, frame), isPlaying: frame < frames - 1 });
    request = requestAnimationFrame(tick);
  });
  return () => {
    cancelAnimationFrame(request);
    playhead.setState({ isPlaying: false });
  };
}
