import { unpackGently, type Take } from "#core";
import { readEach, refuseTooLarge, type ReadFile } from "#handover";
import type { Jobs } from "./jobs/jobs";

/** Up to this a file is read at once; one that is longer is read in a worker, while the page goes on. Bytes. */
const AT_ONCE_BYTES = 256 * 1024;

/** What reading stands on: workers, and what lets the page do what waits. */
interface ReadingWorld {
  readonly jobs: Pick<Jobs, "ask">;
  readonly rest: () => Promise<void>;
}

async function readLong({ jobs, rest }: ReadingWorld, file: File): Promise<ReadFile[]> {
  const { name } = file;
  const outcome = await jobs.ask({ job: "readFile", question: { name, blob: file }, takes: [] }).outcome;
  if (outcome.state === "done") {
    const unpacked: ReadFile[] = [];
    for (const read of outcome.value)
      unpacked.push(
        read.kind === "take" ? { ...read, take: (await unpackGently(read.take, rest)) as Take } : read,
      );
    return unpacked;
  }
  const why = outcome.state === "failed" ? outcome.reason : "it was called off";
  return [refuse(name, why)];
}

/** A file that the browser, not its content, kept from being read: moved or taken away since it was chosen, say. */
function refuse(name: string, why: string): ReadFile {
  return { kind: "refused", name, reasons: [`the file: it could not be read (${why}): try again`] };
}

/** Reads files a user chose or dropped, each a document or a pack of them; never rejects. What is too large is refused unread. */
export async function readFiles(world: ReadingWorld, files: readonly File[]): Promise<ReadFile[]> {
  const read = files.map(async file => {
    const refused = refuseTooLarge(file.name, file.size);
    if (refused) return [refused];
    if (file.size > AT_ONCE_BYTES) return readLong(world, file);
    try {
      return [...readEach(file.name, new Uint8Array(await file.arrayBuffer()))];
    } catch (error) {
      return [refuse(file.name, error instanceof Error ? error.message : String(error))];
    }
  });
  return (await Promise.all(read)).flat();
}
