import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { parseJson } from "#core";

/** What was named on a command line could not be found; each line says which. */
export interface MissingFiles {
  readonly lines: readonly string[];
}

/**
 * The files that words on a command line stand for, in their order: a file, a folder (its `.json` files by the order of
 * their names as code units), or `-` for a list of either on standard input, one a line. A file of takes together
 * (`.takes.json`) stands for each of them.
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

/** A file that should hold a take. One found in a folder may hold another document of ours: then it is passed over. */
export interface TakeFile {
  readonly path: string;
  readonly isFound: boolean;
  /** Which of the takes that the file holds together; undefined where it holds one. */
  readonly place?: number;
}

/** A file, or each of the takes in one that holds several; one that does not read stands for itself, and is refused later. */
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

/** Reads a shard as it is written, "i/n"; undefined for what is none. */
export function parseShard(written: string): Shard | undefined {
  const found = /^(\d{1,6})\/(\d{1,6})$/.exec(written);
  const index = Number(found?.[1]);
  const count = Number(found?.[2]);
  return found && index >= 1 && index <= count ? { index, count } : undefined;
}
