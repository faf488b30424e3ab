import { countWords } from "#core";
import type { ReadFile } from "#handover";

/**
 * The result of importing one document: imported, refused with the reason, or skipped because it is not a
 * document.
 */
export interface TakenLine {
  readonly name: string;
  readonly isTaken: boolean;
  readonly isPassed?: true;
  readonly words: string;
}

/** Returns the lines of everything that cannot be imported: refused with reasons, or skipped. */
export function linesLeftOut(read: readonly ReadFile[]): TakenLine[] {
  return read.flatMap(file => {
    if (file.kind === "passed") return [{ name: file.name, isTaken: false, isPassed: true, words: file.why }];
    if (file.kind !== "refused") return [];
    return [{ name: file.name, isTaken: false, words: file.reasons.join("; ") }];
  });
}

/** Summarises how many documents were imported. */
export function sumTaken(lines: readonly TakenLine[]): string {
  const asked = lines.filter(({ isPassed }) => !isPassed);
  const taken = asked.filter(({ isTaken }) => isTaken).length;
  const left = asked.length - taken;
  const rest = asked.length < lines.length ? " The rest was passed over." : "";
  return `${countWords(asked.length, "thing")} read: ${taken} taken in${left > 0 ? `, ${left} not` : ""}.${rest}`;
}
