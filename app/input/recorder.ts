import type { Library } from "../storage/library";
import type { RecordingChunk } from "../storage/recordings";
import type { Tabs } from "../storage/tabs";
import type { LiveSession } from "./liveSession";
import { createPieces } from "./recording";

/** Stores a recording in chunks as it grows, so that a crash loses only its last moment. */
export interface Recorder {
  readonly id: string;
  /** Call periodically: stores new input if the last chunk is old enough. */
  readonly keepUp: (session: LiveSession, nowMs: number) => void;
  /** Stores the last chunk of a completed recording; false if a chunk is missing from storage. */
  readonly finish: (session: LiveSession, whole: NonNullable<RecordingChunk["whole"]>) => Promise<boolean>;
  /** Marks the recording as no longer in use here; its chunks remain. */
  readonly end: () => void;
  /** Deletes its chunks and ends it, for a recording in which nothing is lost. */
  readonly drop: () => void;
}

/** The interval between chunks. */
const EVERY_MS = 500;

/** Creates the recorder of one recording, which other tabs see as active until `end`. */
export function createRecorder(
  library: Pick<Library, "addChunk" | "dropRecording">,
  tabs: Pick<Tabs, "markAlive">,
  kitId: string,
  id: string,
  isKept: (gateId: string) => boolean,
): Recorder {
  const end = tabs.markAlive(id);
  let pieces:
    | { readonly of: LiveSession["recording"]; readonly next: ReturnType<typeof createPieces> }
    | undefined;
  let place = 0;
  let writtenAtMs = -Infinity;
  let writing: Promise<boolean> = Promise.resolve(true);

  function write({ recording, frames }: LiveSession, whole?: RecordingChunk["whole"]): void {
    if (pieces?.of !== recording) pieces = { of: recording, next: createPieces(recording, isKept) };
    const chunk = { kitId, id, place: place++, ...pieces.next(frames), ...(whole ? { whole } : {}) };
    writing = writing.then(async isSound => (await library.addChunk(chunk)) && isSound);
  }

  return {
    id,
    keepUp(session, nowMs) {
      if (nowMs - writtenAtMs < EVERY_MS || session.frames === 0) return;
      writtenAtMs = nowMs;
      write(session);
    },
    finish(session, whole) {
      write(session, whole);
      return writing;
    },
    end,
    drop() {
      // In use until its chunks are gone, so that no tab offers them.
      void writing.then(() => library.dropRecording(kitId, id)).then(end);
    },
  };
}
