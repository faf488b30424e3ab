import { orderResults, type Checks, type CheckResult, type Kit } from "#core";
import type { TakeVerdict } from "#stage";
import { readJson } from "../readTakeFile";
import { askThreads } from "../threads";
import type { Shard, TakeFile } from "../takeFiles";
import { beginJudging, type CheckSetup, type JudgedFile } from "./judgeBatch";

/** The number of files sent to a thread at a time. */
const BATCH = 8;

/** Encodes a check at a rate as one number; rates are at most 1000. */
const keyOf = (check: number, rateHz: number) => check * 1024 + rateHz;

/** Ordered results, and what was read; or the input without which nothing is judged, a line each. */
export type Judged =
  | {
      readonly results: readonly CheckResult[];
      /** Remarks on takes, such as one of another kit. */
      readonly notes: readonly string[];
      readonly takes: number;
      /** Files that are no takes, with what they are. */
      readonly leftOut: readonly string[];
      /** Takes that do not read, a line for each fault. */
      readonly broken: readonly string[];
    }
  | { readonly lines: readonly string[] };

/** Returns takes without those that come again with the same content, and a line for each that comes with another. */
function dropDoubles(takes: readonly (JudgedTake & { readonly path: string })[]) {
  const first = new Map<string, (typeof takes)[number]>();
  const notes: string[] = [];
  const lines: string[] = [];
  for (const take of takes) {
    const known = first.get(take.take);
    if (!known) first.set(take.take, take);
    else if (known.digest === take.digest)
      notes.push(`${take.path}: is the take of ${known.path} again, and is judged once`);
    else
      lines.push(
        `${take.path}: has the id "${take.take}" of ${known.path}, and is another take: give it an id of its own`,
      );
  }
  return { takes: [...first.values()], notes, lines };
}

type JudgedTake = Extract<JudgedFile, { readonly take: string }>;

/**
 * Judges the takes of files in threads. `shard` selects every n-th file from the i-th on, in the given order;
 * the first shard also reports takes that checks name and no file contains.
 */
export async function judgeFiles(
  kit: Kit,
  { checks }: Checks,
  files: readonly TakeFile[],
  options: { readonly rates: readonly number[]; readonly threads: number; readonly shard: Shard },
): Promise<Judged> {
  const { rates, threads, shard } = options;
  const judged = new Array<JudgedFile>(files.length);
  const isOurs = (k: number) => k % shard.count === shard.index - 1;
  const ours = files.map((file, k) => ({ file, k })).filter(({ k }) => isOurs(k));
  const batches: { readonly file: TakeFile; readonly k: number }[][] = [];
  for (let at = 0; at < ours.length; at += BATCH) batches.push(ours.slice(at, at + BATCH));
  const setup: CheckSetup = { kit, checks, rates };
  const questions = batches.map(batch => batch.map(({ file }) => file));
  await askThreads(
    { thread: "checkThread", begin: beginJudging },
    setup,
    questions,
    threads,
    (index, answers) => answers.forEach((answer, n) => (judged[batches[index]![n]!.k] = answer)),
  );
  const faults = judged.flatMap(file => (file && "lines" in file ? [file] : []));
  const named = faults.filter(({ isNamed }) => isNamed).flatMap(({ lines }) => lines);
  if (named.length > 0) return { lines: named };
  const read = ours.flatMap(({ file, k }) => {
    const answer = judged[k]!;
    return "take" in answer ? [{ ...answer, path: file.path }] : [];
  });
  const { takes, notes, lines } = dropDoubles(read);
  if (lines.length > 0) return { lines };
  const found = takes.map(({ verdicts }) => {
    return new Map(verdicts.map(verdict => [keyOf(verdict.check, verdict.rate), verdict]));
  });
  const verdictOf = (check: number, take: number, rate: number) => {
    const { check: _check, rate: _rate, ...verdict } = found[take]!.get(keyOf(check, rate)) as TakeVerdict;
    return verdict;
  };
  const ids = takes.map(({ take }) => take);
  const namesTakes = checks.some(check => check.on !== "*");
  const elsewhere = files.filter((_, k) => !isOurs(k));
  const given = shard.index > 1 ? [] : namesTakes ? [...ids, ...elsewhere.flatMap(readId)] : ids;
  const results = orderResults(checks, ids, kit.rate, rates, verdictOf, given);
  return {
    results: shard.index === 1 ? results : results.filter(({ why }) => why !== "no-take"),
    notes: [...takes.flatMap(({ note }) => note ?? []), ...notes],
    takes: takes.length,
    leftOut: judged.flatMap(file => (file && "leftOut" in file ? [file.leftOut] : [])),
    broken: faults.flatMap(({ lines }) => lines),
  };
}

/** Returns the id of the take in another shard's file, which reports its problems. */
function readId(file: TakeFile): string[] {
  const { content } = file;
  if (content && ("faults" in content || "leftOut" in content)) return [];
  const json = readJson(file);
  const id = json.ok ? (json.value as { id?: unknown } | null)?.id : undefined;
  return typeof id === "string" ? [id] : [];
}
