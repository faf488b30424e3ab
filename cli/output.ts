import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";

/** Returns the first line of an error's message. */
export function reasonOf(error: unknown): string {
  return (error instanceof Error ? error.message : String(error)).split("\n")[0]!;
}

/** Writes a file and the folders it is in. Returns the fault as a line, undefined if there is none. */
export function writeOut(path: string, data: string | Uint8Array): string | undefined {
  try {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, data);
    return undefined;
  } catch (error) {
    return `--out ${path}: cannot be written (${reasonOf(error)}): name a file in a folder that can be written`;
  }
}
