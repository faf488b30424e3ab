import type { Library } from "../storage/library";
import type { LiveSession } from "./liveSession";
import { createPieces } from "./recording";

/** Writes a recording as it grows, so that a crash loses no more than its last moment. */
export interface Recorder {
  readonly id: string;
  /** To be called as time goes by: writes what has come since the last time, if that was long enough ago. */
  readonly keepUp: (session: LiveSession, nowMs: number) => void;
  /** The recording is kept elsewhere: what was written of it is not needed any more. */
  readonly done: () => Promise<void>;
}

/** How often a piece is written. */
const EVERY_MS = 500;

/** Makes the recorder of one recording. */
export function createRecorder(
  library: Pick<Library, "addChunk" | "dropRecording">,
  kitId: string,
  id: string,
  isKept: (gateId: string) => boolean,
): Recorder {
  let pieces:
    { readonly of: LiveSession["recording"]; readonly next: ReturnType<typeof createPieces> } | undefined;
  let place = 0;
  let writtenAtMs = -Infinity;
  let writing: Promise<unknown> = Promise.resolve();
  return {
    id,
    keepUp(session, nowMs) {
      if (nowMs - writtenAtMs < EVERY_MS || session.state.frame < 0) return;
      writtenAtMs = nowMs;
      if (pieces?.of !== session.recording)
        pieces = { of: session.recording, next: createPieces(session.recording, isKept) };
      const chunk = { kitId, id, place: place++, ...pieces.next(session.state.frame + 1) };
      writing = writing.then(() => library.addChunk(chunk));
    },
    async done() {
      await writing;
      if (place > 0) await library.dropRecording(kitId, id);
    },
  };
}
