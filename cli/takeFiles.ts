import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { formatIssue, parseJson, parseTakes } from "#core";
import { decodeText, readPack, type ReadFile } from "#handover";
import { reasonOf } from "./output";
import { readHead, readText } from "./readText";

/** Command-line arguments that were not found; a line each. */
export interface MissingFiles {
  readonly lines: readonly string[];
}

/** The part of a file of several takes or of a pack, read when the files were listed. */
type TakeContent =
  | { readonly json: unknown }
  /** It is no take, for this reason. */
  | { readonly leftOut: string }
  /** It does not read, for these reasons. */
  | { readonly faults: readonly string[] };

/**
 * A file expected to contain a take. One found in a folder may contain another document of ours and is then
 * left out.
 */
export interface TakeFile {
  readonly path: string;
  readonly isFound: boolean;
  /** The index of the take in a file of several; undefined if it contains one. */
  readonly place?: number;
  /** The content of a part of a file; undefined if the path is that of a file still to be read. */
  readonly content?: TakeContent;
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
    const listed = readText(0).split("\n");
    return listed.map(line => line.trim()).flatMap(line => (line === "" ? [] : expand(line, lines)));
  });
  return lines.length > 0 ? { lines } : files;
}

/** The part of a file in which its format is looked for. */
const HEAD_BYTES = 4096;

/** Returns whether a file is named, or marked near its beginning, as one of several takes. */
function holdsSeveral(path: string): boolean {
  if (path.endsWith(".takes.json")) return true;
  return /"format"\s*:\s*"moss-tap\/takes"/.test(decodeText(readHead(path, HEAD_BYTES)));
}

const HELD_WORDS = {
  kit: "a kit",
  variant: "a variant",
  layout: "a layout",
  checks: "checks",
  assists: "assists",
  mapping: "a mapping",
} as const;

/** Returns the files of a pack, each read. */
function takesOfPack(file: TakeFile): readonly TakeFile[] {
  const reading = readPack(file.path, readFileSync(file.path));
  let step = reading.next();
  while (!step.done) step = reading.next();
  const contentOf = (read: ReadFile): TakeContent => {
    if (read.kind === "take") return { json: read.take };
    if (read.kind === "refused") return { faults: read.reasons };
    return { leftOut: read.kind === "passed" ? read.why : `holds ${HELD_WORDS[read.kind]}` };
  };
  return step.value.map(read => {
    return { path: `${file.path}, ${read.name}`, isFound: true, content: contentOf(read) };
  });
}

/** Returns a file, or each of its takes if it contains several. The text of those is parsed here, once. */
function takesIn(file: TakeFile): readonly TakeFile[] {
  if (file.path.endsWith(".zip")) return takesOfPack(file);
  if (!holdsSeveral(file.path)) return [file];
  const json = parseJson(readText(file.path));
  const read = json.ok ? parseTakes(json.value) : json;
  if (!read.ok) return [{ ...file, content: { faults: read.issues.map(formatIssue) } }];
  return read.value.takes.map((take, place) => ({ ...file, place, content: { json: take } }));
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
