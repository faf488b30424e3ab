import { countWords } from "#core";
import type { ReadFile } from "#handover";

/** What became of one thing that was read in: taken, or not and why; or passed over, since it is nothing that is kept. */
export interface TakenLine {
  readonly name: string;
  readonly isTaken: boolean;
  readonly isPassed?: true;
  readonly words: string;
}

/** What became of what is never taken in: refused with its reasons, or passed over. */
export function linesLeftOut(read: readonly ReadFile[]): TakenLine[] {
  return read.flatMap(file => {
    if (file.kind === "passed") return [{ name: file.name, isTaken: false, isPassed: true, words: file.why }];
    if (file.kind !== "refused") return [];
    return [{ name: file.name, isTaken: false, words: file.reasons.join("; ") }];
  });
}

/** How much of a list was taken in, in a sentence. */
export function sumTaken(lines: readonly TakenLine[]): string {
  const asked = lines.filter(({ isPassed }) => !isPassed);
  const taken = asked.filter(({ isTaken }) => isTaken).length;
  const left = asked.length - taken;
  const rest = asked.length < lines.length ? " The rest was passed over." : "";
  return `${countWords(asked.length, "thing")} read: ${taken} taken in${left > 0 ? `, ${left} not` : ""}.${rest}`;
}
