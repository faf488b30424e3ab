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

/** How a take is replayed: how fast, and which stretch of frames again and again (both ends included). */
export interface Replay {
  readonly speed: number;
  readonly loop: { readonly from: number; readonly to: number } | undefined;
}

/** Lets the playhead run, from the start again if it stands at the end; returns how to stop it. */
export function playFrom(rateHz: number, frames: number, { speed, loop }: Replay): () => void {
  const first = loop?.from ?? 0;
  const last = Math.min(frames - 1, loop?.to ?? frames - 1);
  const now = playhead.getState().frame;
  const from = now >= last || now < first ? first : now;
  playhead.setState({ frame: from, isPlaying: true });
  const began = performance.now();
  let request = requestAnimationFrame(function tick(at) {
    if (!playhead.getState().isPlaying) return;
    const passed = Math.max(0, Math.floor(((at - began) * rateHz * speed) / 1000));
    const frame = loop
      ? first + ((from - first + passed) % (last - first + 1))
      : Math.min(last, from + passed);
    playhead.setState({ frame, isPlaying: loop !== undefined || frame < last });
    request = requestAnimationFrame(tick);
  });
  return () => {
    cancelAnimationFrame(request);
    playhead.setState({ isPlaying: false });
  };
}
