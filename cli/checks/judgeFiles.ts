import { orderResults, type Checks, type CheckResult, type Kit } from "#core";
import type { TakeVerdict } from "#stage";
import { readPlace } from "../readTakeFile";
import { askThreads } from "../threads";
import type { Shard, TakeFile } from "../takeFiles";
import { beginJudging, type CheckSetup, type JudgedFile } from "./judgeBatch";

/** The number of files sent to a thread at a time. */
const BATCH = 8;

/** Encodes a check at a rate as one number; rates are at most 1000. */
const keyOf = (check: number, rateHz: number) => check * 1024 + rateHz;

/** Ordered results with notes on takes of other kits, or the unreadable input, a line each. */
export type Judged =
  | { readonly results: readonly CheckResult[]; readonly notes: readonly string[] }
  | { readonly lines: readonly string[] };

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
    { script: "cli/checks/checkThread.ts", begin: beginJudging },
    setup,
    questions,
    threads,
    (index, answers) => answers.forEach((answer, n) => (judged[batches[index]![n]!.k] = answer)),
  );
  const lines = judged.flatMap(file => (file && "lines" in file ? file.lines : []));
  if (lines.length > 0) return { lines };
  const takes = ours.flatMap(({ k }) => {
    const file = judged[k]!;
    return "take" in file ? [file] : [];
  });
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
    notes: takes.flatMap(({ note }) => note ?? []),
  };
}

/** Returns the id of the take in another shard's file, which reports its problems. */
function readId({ path, place }: TakeFile): string[] {
  const json = readPlace(path, place);
  const id = json.ok ? (json.value as { id?: unknown } | null)?.id : undefined;
  return typeof id === "string" ? [id] : [];
}
