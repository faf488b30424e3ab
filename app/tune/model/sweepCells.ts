import { countWords, type SweepPoint } from "#core";
import { isAnyRequested, isAnyShown } from "./sweepLines";

/**
 * Returns whether the cells of a field name showings of prompts that were not answered: if the swept numbers make a difference
 * to them, or if they count nothing else. Otherwise the takes leave as many unanswered in each cell, and none would be clean.
 */
export function areShowingsNamed(points: readonly SweepPoint[]): boolean {
  if (!isAnyShown(points)) return false;
  const shares = points
    .filter(({ runs }) => runs > 0)
    .map(({ answered, unanswered }) => unanswered / Math.max(1, answered + unanswered));
  return !isAnyRequested(points) || shares.some(share => share !== shares[0]);
}

/** A cell of a field of two swept numbers. */
export interface SweepCell {
  /** "●" for none of what a cell counts; else "3" for lost presses, "1?" for unanswered showings, "2!" for unwanted or missing events. */
  readonly text: string;
  readonly isClean: boolean;
  /** The same in words. */
  readonly words: string;
}

/** Returns the cell of a point; `isShown`: see areShowingsNamed. A cell that could not be run is blank. */
export function sweepCellOf(
  { runs, lostPresses, answered, unanswered, unwanted, gone }: SweepPoint,
  isShown: boolean,
): SweepCell {
  const bad = unwanted + gone;
  const open = isShown ? unanswered : 0;
  const words = [
    `${lostPresses} lost`,
    ...(isShown ? [`${unanswered} of ${countWords(answered + unanswered, "showing")} not answered`] : []),
    `${bad} unwanted or gone`,
  ].join(", ");
  if (runs === 0) return { text: "", isClean: false, words };
  if (lostPresses + open + bad === 0) return { text: "●", isClean: true, words };
  const text = [lostPresses > 0 && lostPresses, open > 0 && `${open}?`, bad > 0 && `${bad}!`];
  return { text: text.filter(Boolean).join(" "), isClean: false, words };
}
