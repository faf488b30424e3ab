import { BOUNDS, countWords, formatFinding, formatPath, largest, parseKitShape, type Kit } from "#core";

/** Why a level is too large to be kept, in words; empty where it is not, or where there is none. */
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

/**
 * Why a changed kit is not kept: it could not be read again from where it is kept, because something in it is too much or
 * out of reach. Empty where it can, whatever faults its rules or its stage may have otherwise: those are told, and kept.
 */
export function whyRefused(before: Kit, after: Kit): string {
  if (before === after) return "";
  const shape = parseKitShape(after);
  if (!shape.ok) return `${formatPath(shape.issues[0]!.path)} ${formatFinding(shape.issues[0]!)}`;
  return after.stage === before.stage ? "" : whyTooLarge(after.stage);
}
