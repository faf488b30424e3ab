import type { ReadFile } from "#handover";
import { fetchPart } from "../ui/fetchPart";
import type { Workers } from "./workers";

/** The dependencies of reading: workers, and a way to yield. */
export interface ReadingWorld {
  readonly jobs: Pick<Workers["jobs"], "ask">;
  readonly yieldToUi: Workers["yieldToUi"];
}

/** Files being read. */
export interface Reading {
  /** The results, file by file; undefined if cancelled. Never rejects. */
  readonly outcome: Promise<readonly ReadFile[] | undefined>;
  readonly stop: () => void;
}

/** The refusal of a file whose readers were not fetched. */
const NO_READER =
  "the file: what reads it could not be fetched from the server: load this page again when the server runs";

/** Loads the readers of files; a page that reads none has no need of them. */
export const loadReaders = () => fetchPart(() => import("./readFiles"));

/**
 * Reads files a user chose or dropped, each a document or a pack of documents. Files that are too large are
 * refused unread. `onProgress` receives the bytes read and their total, if it takes long.
 */
export function beginReading(
  world: ReadingWorld,
  files: readonly File[],
  onProgress: (done: number, of: number) => void = () => undefined,
): Reading {
  let begun: Reading | undefined;
  let isStopped = false;
  async function read(): Promise<readonly ReadFile[] | undefined> {
    const readers = await loadReaders().catch(() => undefined);
    if (isStopped) return undefined;
    if (!readers) return files.map(({ name }) => ({ kind: "refused", name, reasons: [NO_READER] }));
    begun = readers.readGiven(world, files, onProgress);
    return begun.outcome;
  }
  return {
    outcome: read(),
    stop() {
      isStopped = true;
      begun?.stop();
    },
  };
}
