import { countWords } from "#core";
import type { ReadFile } from "#handover";

/** What became of one thing that was read in: taken, or not and why. */
export interface TakenLine {
  readonly name: string;
  readonly isTaken: boolean;
  readonly words: string;
}

/** What became of what is never taken in: refused with its reasons, or passed over. */
export function linesLeftOut(read: readonly ReadFile[]): TakenLine[] {
  return read.flatMap(file => {
    if (file.kind === "passed")
      return [{ name: file.name, isTaken: false, words: `passed over: ${file.why}` }];
    if (file.kind !== "refused") return [];
    return [{ name: file.name, isTaken: false, words: file.reasons.join("; ") }];
  });
}

/** How much of a list was taken in, in a sentence. */
export function sumTaken(lines: readonly TakenLine[]): string {
  const taken = lines.filter(({ isTaken }) => isTaken).length;
  const left = lines.length - taken;
  return `${countWords(lines.length, "thing")} read: ${taken} taken in${left > 0 ? `, ${left} not` : ""}.`;
}
