import { createHash } from "node:crypto";
import { foreignWords, type Check, type Kit } from "#core";
import { compileTakeJudge, type TakeVerdict } from "#stage";
import { readTakeFile, type ReadTake } from "../readTakeFile";
import type { TakeFile } from "../takeFiles";

/** The setup of a thread. */
export interface CheckSetup {
  readonly kit: Kit;
  readonly checks: readonly Check[];
  readonly rates: readonly number[];
}

/** The result of a take's file. */
export type JudgedFile =
  | {
      readonly take: string;
      /** A digest of its content, by which a take that comes twice is recognised. */
      readonly digest: string;
      readonly verdicts: readonly TakeVerdict[];
      readonly note: string | undefined;
    }
  | Exclude<ReadTake, { readonly take: unknown }>;

/** Returns a function that judges a batch of files. */
export function beginJudging({
  kit,
  checks,
  rates,
}: CheckSetup): (files: readonly TakeFile[]) => JudgedFile[] {
  const judge = compileTakeJudge(kit, checks, rates);
  if (!judge.ok) throw new Error("the checks do not go with the kit");
  const longest = Math.max(kit.rate, ...rates, ...checks.flatMap(check => check.rates ?? []));
  const judgeFile = (file: TakeFile): JudgedFile => {
    const read = readTakeFile(file, longest);
    if (!("take" in read)) return read;
    const { take } = read;
    const foreign = foreignWords(take, kit);
    const note = foreign && `${file.path}: ${foreign}`;
    const digest = createHash("sha1").update(JSON.stringify(take)).digest("base64");
    return { take: take.id, digest, verdicts: judge.value(take), note };
  };
  return (files: readonly TakeFile[]) => files.map(judgeFile);
}
