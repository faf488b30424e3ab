import { packTake, type PackedTake } from "#core";
import { readEach, type ReadFile } from "#handover";
import type { Job } from "./job";

/** What was read from a file, its takes packed for the way back. */
export type PackedReadFile =
  | Exclude<ReadFile, { kind: "take" }>
  | { readonly kind: "take"; readonly name: string; readonly take: PackedTake };

/** Reads one file: a document, or a pack of them. */
export const readFileJob: Job<
  { readonly name: string; readonly blob: Blob },
  readonly PackedReadFile[]
> = async ({ name, blob }, _takes, tools) => {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const read: PackedReadFile[] = [];
  for (const file of readEach(name, bytes)) {
    read.push(file.kind === "take" ? { ...file, take: packTake(file.take) } : file);
    await tools.rest();
  }
  return { value: read };
};
