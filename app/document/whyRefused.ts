import {
  BOUNDS,
  countWords,
  findEditFault,
  formatFinding,
  formatIssue,
  formatPath,
  largest,
  type Kit,
} from "#core";
import { PART_LISTS, PARTS, type KitDocument, type PartList } from "../storage/records";

/** Returns why a level is too large to be stored; empty if it is not, or there is none. */
function whyTooLarge(stage: unknown): string {
  const level = (stage as { readonly level?: unknown } | undefined)?.level;
  if (!Array.isArray(level)) return "";
  const tiles = largest(
    level.map(row => (typeof row === "string" ? row.length : 0)),
    0,
  );
  if (level.length <= BOUNDS.levelRows && tiles <= BOUNDS.levelTiles) return "";
  return `a level of ${level.length} rows, ${countWords(tiles, "tile")} wide, is more than the ${BOUNDS.levelRows} by ${BOUNDS.levelTiles} that can be drawn`;
}

function whyKitRefused(before: Kit, after: Kit): string {
  if (before === after) return "";
  const fault = findEditFault(before, after);
  if (fault) return `${formatPath(fault.path)} ${formatFinding(fault)}`;
  return after.stage === before.stage ? "" : whyTooLarge(after.stage);
}

/** Returns why a part that an edit added or changed is refused; empty if it can be read back. */
function whyPartRefused(list: PartList, before: KitDocument, after: KitDocument): string {
  if (before[list] === after[list]) return "";
  const known = new Set<unknown>(before[list]);
  for (const part of after[list]) {
    if (known.has(part)) continue;
    const read = PARTS[list].parse(part);
    if (!read.ok) {
      const [issue] = read.issues;
      return `${PARTS[list].word} ${part.name}: ${issue ? formatIssue(issue) : "it cannot be read"}`;
    }
  }
  return "";
}

/**
 * Returns why a changed document cannot be stored: a part of it could not be read back, because it is too
 * large or out of bounds. Empty if all can; other faults of rules or stage are stored.
 */
export function whyRefused(before: KitDocument, after: KitDocument): string {
  const reasons = [
    whyKitRefused(before.kit, after.kit),
    ...PART_LISTS.map(list => whyPartRefused(list, before, after)),
  ];
  return reasons.find(reason => reason !== "") ?? "";
}
