import { foreignWords, type Check, type Kit } from "#core";
import { compileTakeJudge, type TakeVerdict } from "#stage";
import { readTakeFile } from "../readTakeFile";
import type { TakeFile } from "../takeFiles";

/** The setup of a thread. */
export interface CheckSetup {
  readonly kit: Kit;
  readonly checks: readonly Check[];
  readonly rates: readonly number[];
}

/** The result of a take's file. */
export type JudgedFile =
  | { readonly take: string; readonly verdicts: readonly TakeVerdict[]; readonly note: string | undefined }
  | { readonly isPassedOver: true }
  | { readonly lines: readonly string[] };

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
    return { take: take.id, verdicts: judge.value(take), note };
  };
  return (files: readonly TakeFile[]) => files.map(judgeFile);
}
