/** The units of lengths in fields and figures. */
export const UNITS = [
  { value: "tiles", label: "tiles" },
  { value: "px", label: "px" },
] as const;
export type Unit = (typeof UNITS)[number]["value"];

const roundTo = (value: number, digits: number) => Number(value.toFixed(digits));

/** Converts a length in tiles to a unit, and back; lengths are stored in tiles. */
export function lengthIn(unit: Unit, tilePx: number) {
  return unit === "px"
    ? {
        show: (tiles: number) => roundTo(tiles * tilePx, 1),
        read: (typed: number) => roundTo(typed / tilePx, 4),
      }
    : { show: (tiles: number) => tiles, read: (typed: number) => typed };
}
