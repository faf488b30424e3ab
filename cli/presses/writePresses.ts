import { rmSync } from "node:fs";
import { extname } from "node:path";
import type { Kit } from "#core";
import type { Shard, TakeFile } from "../takeFiles";
import { askThreads } from "../threads";
import { beginReading, type ReadPresses } from "./readPresses";
import { TABLES } from "./tables";

/** The number of files sent to a thread at a time. */
const BATCH = 16;

/** The number of presses written, or the unreadable input, a line each; then no file remains. */
export type Written =
  | { readonly takes: number; readonly presses: number; readonly frames: number; readonly seconds: number }
  | { readonly lines: readonly string[] };

/**
 * Writes a row for every press of the takes of files, in order, whichever thread finishes first; only those
 * of a shard.
 */
export async function writePresses(
  kit: Kit,
  files: readonly TakeFile[],
  { out, threads, shard }: { readonly out: string; readonly threads: number; readonly shard: Shard },
): Promise<Written> {
  const begin = TABLES[extname(out)];
  if (!begin) throw new Error(`no table is written to ${out}`);
  const ours = files.filter((_, k) => k % shard.count === shard.index - 1);
  const batches: TakeFile[][] = [];
  for (let at = 0; at < ours.length; at += BATCH) batches.push(ours.slice(at, at + BATCH));
  const table = begin(out);
  const came = new Map<number, ReadPresses>();
  const lines: string[] = [];
  const sums = { takes: 0, presses: 0, frames: 0 };
  let next = 0;
  let writing: Promise<void> = Promise.resolve();
  const began = performance.now();
  const onAnswer = (index: number, answer: ReadPresses) => {
    came.set(index, answer);
    for (let read = came.get(next); read; read = came.get(++next)) {
      came.delete(next);
      const { columns } = read;
      lines.push(...read.lines);
      sums.takes += read.takes;
      sums.presses += columns[0]!.length;
      sums.frames += read.frames;
      writing = writing.then(() => table.add(columns));
    }
  };
  const work = { thread: "pressThread", begin: beginReading } as const;
  await askThreads(work, { kit }, batches, threads, onAnswer);
  await writing;
  await table.finish();
  if (lines.length === 0) return { ...sums, seconds: (performance.now() - began) / 1000 };
  rmSync(out);
  return { lines };
}
