import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { parseJson } from "#core";

/** Command-line arguments that were not found; a line each. */
export interface MissingFiles {
  readonly lines: readonly string[];
}

/**
 * Returns the files named by command-line arguments, in order: a file, a folder (its `.json` files ordered by
 * name as code units), or `-` for a list of either on standard input, one per line. A file of several takes
 * (`.takes.json`) contributes each of them.
 */
export function listTakeFiles(words: readonly string[]): readonly TakeFile[] | MissingFiles {
  const lines: string[] = [];
  const files = words.flatMap(word => {
    if (word !== "-") return expand(word, lines);
    const listed = readFileSync(0, "utf8").split("\n");
    return listed.map(line => line.trim()).flatMap(line => (line === "" ? [] : expand(line, lines)));
  });
  return lines.length > 0 ? { lines } : files;
}

/**
 * A file expected to contain a take. One found in a folder may contain another document of ours and is then
 * skipped.
 */
export interface TakeFile {
  readonly path: string;
  readonly isFound: boolean;
  /** The index of the take in a file of several; undefined if it contains one. */
  readonly place?: number;
}

/**
 * Returns a file, or each of its takes if it contains several; an unreadable file is returned and refused
 * later.
 */
function takesIn(file: TakeFile): readonly TakeFile[] {
  if (!file.path.endsWith(".takes.json")) return [file];
  const json = parseJson(readFileSync(file.path, "utf8"));
  const takes = json.ok ? (json.value as { takes?: unknown } | null)?.takes : undefined;
  return Array.isArray(takes) ? takes.map((_, place) => ({ ...file, place })) : [file];
}

function expand(word: string, lines: string[]): TakeFile[] {
  try {
    if (!statSync(word).isDirectory()) return [...takesIn({ path: word, isFound: false })];
    const names = readdirSync(word).filter(name => name.endsWith(".json"));
    names.sort((a, b) => (a < b ? -1 : 1));
    return names.flatMap(name => takesIn({ path: join(word, name), isFound: true }));
  } catch (error) {
    lines.push(`${word}: cannot be read (${error instanceof Error ? error.message : String(error)})`);
    return [];
  }
}

/** Every n-th item from the i-th on, counted from 1; "2/4" is the second of four. */
export interface Shard {
  readonly index: number;
  readonly count: number;
}

/** Parses a shard, "i/n"; undefined if it is invalid. */
export function parseShard(written: string): Shard | undefined {
  const found = /^(\d{1,6})\/(\d{1,6})$/.exec(written);
  const index = Number(found?.[1]);
  const count = Number(found?.[2]);
  return found && index >= 1 && index <= count ? { index, count } : undefined;
}
