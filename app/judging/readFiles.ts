import { buffersOf, unpackGently, type Take } from "#core";
import { readWhole, refuseTooLarge, type ReadFile } from "#handover";
import type { Jobs } from "./jobs/jobs";
import { refuseUnread } from "./jobs/readFiles";

/** Files up to this total size are read at once, larger ones in a worker. Bytes. */
const AT_ONCE_BYTES = 256 * 1024;

/** The amount of takes unpacked between two yields. Bytes. */
const BYTES_A_REST = 512 * 1024;

/** The time limit for reading the largest file, during which the worker gives no sign of life. */
const FILE_MS = 60_000;

/** The dependencies of reading: workers, and a way to yield. */
interface ReadingWorld {
  readonly jobs: Pick<Jobs, "ask">;
  readonly yieldToUi: () => Promise<void>;
}

/** Files being read. */
export interface Reading {
  /** The results, file by file; undefined if cancelled. Never rejects. */
  readonly outcome: Promise<readonly ReadFile[] | undefined>;
  readonly stop: () => void;
}

async function readNow(file: File): Promise<readonly ReadFile[]> {
  try {
    return readWhole(file.name, new Uint8Array(await file.arrayBuffer()));
  } catch (error) {
    return [refuseUnread(file.name, error)];
  }
}

/**
 * Reads files a user chose or dropped, each a document or a pack of documents. Files that are too large are
 * refused unread. `onProgress` receives the bytes read and their total, if it takes long.
 */
export function beginReading(
  { jobs, yieldToUi }: ReadingWorld,
  files: readonly File[],
  onProgress: (done: number, of: number) => void = () => undefined,
): Reading {
  const refused = files.flatMap(file => refuseTooLarge(file.name, file.size) ?? []);
  const wanted = files.filter(file => !refuseTooLarge(file.name, file.size));
  if (wanted.reduce((sum, file) => sum + file.size, 0) <= AT_ONCE_BYTES) {
    const read = Promise.all(wanted.map(readNow));
    return { outcome: read.then(lists => [...refused, ...lists.flat()]), stop: () => undefined };
  }
  const asked = jobs.ask({
    job: "readFiles",
    question: { files: wanted.map(file => ({ name: file.name, blob: file })) },
    takes: [],
    quietMs: FILE_MS,
    onProgress: ({ done, of }) => onProgress(done, of),
  });
  async function unpack(): Promise<readonly ReadFile[] | undefined> {
    const outcome = await asked.outcome;
    if (outcome.state === "stopped") return undefined;
    if (outcome.state === "failed")
      return [...refused, ...wanted.map(({ name }) => refuseUnread(name, outcome.reason))];
    const unpacked: ReadFile[] = [];
    let bytes = 0;
    for (const read of outcome.value) {
      if (read.kind !== "take") {
        unpacked.push(read);
        continue;
      }
      bytes += buffersOf(read.take).reduce((sum, buffer) => sum + buffer.byteLength, 0);
      if (bytes > BYTES_A_REST) {
        bytes = 0;
        await yieldToUi();
      }
      unpacked.push({ ...read, take: (await unpackGently(read.take, yieldToUi)) as Take });
    }
    return [...refused, ...unpacked];
  }
  return { outcome: unpack(), stop: asked.stop };
}
