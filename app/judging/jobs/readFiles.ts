import { buffersOf, packTake, type PackedTake } from "#core";
import { readEach, type ReadFile } from "#handover";
import type { Job } from "./job";
import { createProgressReporter } from "./slices";

/** The result of reading a file, with packed takes for transfer. */
export type PackedReadFile =
  | Exclude<ReadFile, { kind: "take" }>
  | { readonly kind: "take"; readonly name: string; readonly take: PackedTake };

/**
 * Returns the refusal of a file that the browser could not read, for example because it was moved or deleted
 * since it was chosen.
 */
export function refuseUnread(name: string, error: unknown): ReadFile {
  const why = error instanceof Error ? error.message : String(error);
  return { kind: "refused", name, reasons: [`the file: it could not be read (${why}): try again`] };
}

/** Reads files, each a document or a pack of documents, and reports the bytes read. */
export const readFilesJob: Job<
  { readonly files: readonly { readonly name: string; readonly blob: Blob }[] },
  readonly PackedReadFile[]
> = async ({ files }, _takes, tools) => {
  const all = files.reduce((sum, { blob }) => sum + blob.size, 0);
  const reportProgress = createProgressReporter(tools);
  const read: PackedReadFile[] = [];
  let done = 0;
  for (const { name, blob } of files) {
    try {
      const reading = readEach(name, new Uint8Array(await blob.arrayBuffer()));
      let step = reading.next();
      for (; !step.done; step = reading.next()) {
        reportProgress(done + Math.min(blob.size, step.value), all);
        await tools.yieldNow();
      }
      for (const file of step.value)
        read.push(file.kind === "take" ? { ...file, take: packTake(file.take) } : file);
    } catch (error) {
      if (!(error instanceof DOMException)) throw error;
      read.push(refuseUnread(name, error) as PackedReadFile);
    }
    done += blob.size;
    reportProgress(done, all);
    await tools.yieldNow();
  }
  const transfer = read.flatMap(file => (file.kind === "take" ? buffersOf(file.take) : []));
  return { value: read, transfer };
};
