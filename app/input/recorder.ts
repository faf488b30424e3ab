import type { Library } from "../storage/library";
import type { RecordingChunk } from "../storage/recordings";
import type { Tabs } from "../storage/tabs";
import type { LiveSession } from "./liveSession";
import { createPieces } from "./recording";

/** Writes a recording as it grows, so that a crash loses no more than its last moment. */
export interface Recorder {
  readonly id: string;
  /** To be called as time goes by: writes what has come since the last time, if that was long enough ago. */
  readonly keepUp: (session: LiveSession, nowMs: number) => void;
  /** Writes the last piece of a recording that has come to its end; false where not every piece is in storage. */
  readonly finish: (session: LiveSession, whole: NonNullable<RecordingChunk["whole"]>) => Promise<boolean>;
  /** The recording is no longer in work here; its pieces stay. */
  readonly end: () => void;
}

/** How often a piece is written. */
const EVERY_MS = 500;

/** Creates the recorder of one recording, which other tabs can see is alive until `end`. */
export function createRecorder(
  library: Pick<Library, "addChunk">,
  tabs: Pick<Tabs, "markAlive">,
  kitId: string,
  id: string,
  isKept: (gateId: string) => boolean,
): Recorder {
  const end = tabs.markAlive(id);
  let pieces:
    { readonly of: LiveSession["recording"]; readonly next: ReturnType<typeof createPieces> } | undefined;
  let place = 0;
  let writtenAtMs = -Infinity;
  let writing: Promise<boolean> = Promise.resolve(true);

  function write({ recording, state }: LiveSession, whole?: RecordingChunk["whole"]): void {
    if (pieces?.of !== recording) pieces = { of: recording, next: createPieces(recording, isKept) };
    const chunk = { kitId, id, place: place++, ...pieces.next(state.frame + 1), ...(whole ? { whole } : {}) };
    writing = writing.then(async isSound => (await library.addChunk(chunk)) && isSound);
  }

  return {
    id,
    keepUp(session, nowMs) {
      if (nowMs - writtenAtMs < EVERY_MS || session.state.frame < 0) return;
      writtenAtMs = nowMs;
      write(session);
    },
    finish(session, whole) {
      write(session, whole);
      return writing;
    },
    end,
  };
}
