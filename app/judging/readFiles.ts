import { buffersOf, unpackGently, type Take } from "#core";
import { readWhole, refuseTooLarge, type ReadFile } from "#handover";
import { refuseUnread } from "./jobs/readFiles";
import type { Reading, ReadingWorld } from "./reading";

/** Files up to this total size are read at once, larger ones in a worker. Bytes. */
const AT_ONCE_BYTES = 256 * 1024;

/** The amount of takes unpacked between two yields. Bytes. */
const BYTES_A_REST = 512 * 1024;

/** The time limit for reading the largest file, during which the worker gives no sign of life. */
const FILE_MS = 60_000;

async function readNow(file: File): Promise<readonly ReadFile[]> {
  try {
    return readWhole(file.name, new Uint8Array(await file.arrayBuffer()));
  } catch (error) {
    return [refuseUnread(file.name, error)];
  }
}

/** Reads files as `beginReading` of the page promises, at once or in a worker. */
export function readGiven(
  { jobs, yieldToUi }: ReadingWorld,
  files: readonly File[],
  onProgress: (done: number, of: number) => void,
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
