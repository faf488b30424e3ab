import { closeSync, openSync, readdirSync, readFileSync, readSync, statSync } from "node:fs";
import { join } from "node:path";
import { parseJson, type Take } from "#core";
import { readPack } from "#handover";
import { reasonOf } from "./output";

/** Command-line arguments that were not found; a line each. */
export interface MissingFiles {
  readonly lines: readonly string[];
}

/**
 * A file expected to contain a take. One found in a folder may contain another document of ours and is then
 * left out.
 */
export interface TakeFile {
  readonly path: string;
  readonly isFound: boolean;
  /** The index of the take in a file of several; undefined if it contains one. */
  readonly place?: number;
  /** The take, if it has been read already: one of a pack. */
  readonly take?: Take;
  /** The reason why a part of a pack does not read. */
  readonly fault?: string;
}

/**
 * Returns the files named by command-line arguments, in order: a file, a folder (its `.json` files and packs, at any depth,
 * ordered by path as code units), or `-` for a list of either on standard input, one per line. A file of several takes and
 * a pack contribute each of theirs.
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

/** The part of a file in which its format is looked for. */
const HEAD_BYTES = 4096;

/** Returns whether a file is named, or marked near its beginning, as one of several takes. */
function holdsSeveral(path: string): boolean {
  if (path.endsWith(".takes.json")) return true;
  const file = openSync(path, "r");
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    const length = readSync(file, head, 0, HEAD_BYTES, 0);
    return /"format"\s*:\s*"moss-tap\/takes"/.test(head.toString("utf8", 0, length));
  } finally {
    closeSync(file);
  }
}

/** Returns the takes of a pack, each read, and its faults. */
function takesOfPack(file: TakeFile): readonly TakeFile[] {
  const reading = readPack(file.path, readFileSync(file.path));
  let step = reading.next();
  while (!step.done) step = reading.next();
  return step.value.flatMap((read): TakeFile[] => {
    const path = `${file.path}, ${read.name}`;
    if (read.kind === "take") return [{ path, isFound: file.isFound, take: read.take }];
    if (read.kind !== "refused") return [];
    return [{ path, isFound: true, fault: `${path}: ${read.reasons.join("; ")}` }];
  });
}

/** Returns a file, or each of its takes if it contains several; an unreadable file is returned and refused later. */
function takesIn(file: TakeFile): readonly TakeFile[] {
  if (file.path.endsWith(".zip")) return takesOfPack(file);
  if (!holdsSeveral(file.path)) return [file];
  const json = parseJson(readFileSync(file.path, "utf8"));
  const takes = json.ok ? (json.value as { takes?: unknown } | null)?.takes : undefined;
  return Array.isArray(takes) ? takes.map((_, place) => ({ ...file, place })) : [file];
}

function expand(word: string, lines: string[]): TakeFile[] {
  try {
    if (!statSync(word).isDirectory()) return [...takesIn({ path: word, isFound: false })];
    const names = readdirSync(word, { recursive: true, encoding: "utf8" }).filter(name =>
      /\.(json|zip)$/.test(name),
    );
    names.sort((a, b) => (a < b ? -1 : 1));
    return names.flatMap(name => takesIn({ path: join(word, name), isFound: true }));
  } catch (error) {
    lines.push(`${word}: cannot be read (${reasonOf(error)})`);
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
