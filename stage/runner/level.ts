/**
 * A level of tiles. Rows are counted from the top, y upwards from the bottom of the lowest row; one tile is
 * one unit.
 */
export interface Level {
  readonly width: number;
  readonly height: number;
  /** By tile, row by row from the top: `SOLID`, `THIN` for one that holds from above only, or 0. */
  readonly solid: Uint8Array;
  /** The zone's index in `zoneLetters` plus one, 0 for none. */
  readonly zone: Uint8Array;
  readonly zoneLetters: readonly string[];
  readonly startX: number;
  readonly startY: number;
}

export const SOLID = 1;
export const THIN = 2;

/** Parses rows of text. Without "@" the body starts above the leftmost solid tile. */
export function parseLevel(rows: readonly string[]): Level {
  const width = Math.max(1, ...rows.map(row => row.length));
  const height = rows.length;
  const solid = new Uint8Array(width * height);
  const zone = new Uint8Array(width * height);
  const zoneLetters: string[] = [];
  let startX = 1.5;
  let startY = height;
  rows.forEach((row, r) =>
    [...row].forEach((tile, c) => {
      if (tile === "#") solid[r * width + c] = SOLID;
      else if (tile === "-") solid[r * width + c] = THIN;
      else if (tile === "@") {
        startX = c + 0.5;
        startY = height - 1 - r;
      } else if (/[a-z]/.test(tile)) {
        if (!zoneLetters.includes(tile)) zoneLetters.push(tile);
        zone[r * width + c] = zoneLetters.indexOf(tile) + 1;
      }
    }),
  );
  return { width, height, solid, zone, zoneLetters, startX, startY };
}

/**
 * Returns whether a tile is solid. Rows are counted from the bottom up. The sides of the level are walls;
 * above and below it is air.
 */
export function isBeam(level: Level, column: number, row: number): boolean {
  if (column < 0 || column >= level.width) return true;
  if (row < 0 || row >= level.height) return false;
  return level.solid[(level.height - 1 - row) * level.width + column] === SOLID;
}

/** Returns whether a tile holds a body from above and lets it pass otherwise. Rows as in `isBeam`. */
export function isThin(level: Level, column: number, row: number): boolean {
  if (column < 0 || column >= level.width || row < 0 || row >= level.height) return false;
  return level.solid[(level.height - 1 - row) * level.width + column] === THIN;
}

/** Returns the zone at a position, as in Level.zone. */
export function zoneAt(level: Level, x: number, y: number): number {
  const column = Math.floor(x);
  const row = level.height - 1 - Math.floor(y);
  if (column < 0 || column >= level.width || row < 0 || row >= level.height) return 0;
  return level.zone[row * level.width + column]!;
}
