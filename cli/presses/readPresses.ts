import { readTake, listPressRows, PRESS_COLUMNS, type Kit } from "#core";
import { compileRules, runRules } from "#stage";
import { readTakeFile } from "../readTakeFile";
import type { TakeFile } from "../takeFiles";

/** Presses as columns, in the order of PRESS_COLUMNS: cheaper to send between threads than rows. */
export type PressColumns = readonly (readonly (string | number | null)[])[];

/** The result of a batch of files. */
export interface ReadPresses {
  readonly columns: PressColumns;
  readonly takes: number;
  readonly frames: number;
  readonly lines: readonly string[];
}

/** Returns a function that reads the presses of a batch of files. */
export function beginReading({ kit }: { readonly kit: Kit }): (files: readonly TakeFile[]) => ReadPresses {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error("the kit does not read");
  const { program } = rules.value;
  return (files: readonly TakeFile[]): ReadPresses => {
    const columns = PRESS_COLUMNS.map((): (string | number | null)[] => []);
    const lines: string[] = [];
    let takes = 0;
    let frames = 0;
    for (const file of files) {
      const read = readTakeFile(file, kit.rate);
      if ("lines" in read) lines.push(...read.lines);
      if (!("take" in read)) continue;
      const { trace } = runRules(rules.value, readTake(program, read.take));
      for (const row of listPressRows(program, trace, read.take))
        PRESS_COLUMNS.forEach(([name], c) => columns[c]!.push(row[name]));
      takes++;
      frames += trace.frames;
    }
    return { columns, takes, frames, lines };
  };
}
