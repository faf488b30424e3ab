import { BOUNDS, largest, ownValue, writeAt, type Kit } from "#core";
import type { RunnerDocument } from "#stage";

/** A tile of a level's rows of text: solid, thin, air, the body's start, or the letter of a zone. */
export type Tile = string;

/** A position in a level, counted from its upper left corner. */
export interface TilePlace {
  readonly column: number;
  readonly row: number;
}

export const BEAM: Tile = "#";
/** Holds a body from above only. */
export const THIN_BEAM: Tile = "-";
export const AIR: Tile = " ";
export const START: Tile = "@";

/** The minimum size of a level, in tiles. */
const LEAST_WIDTH = 8;
const LEAST_HEIGHT = 3;

export function widthOf(rows: readonly string[]): number {
  return largest(
    rows.map(row => row.length),
    0,
  );
}

/** Returns the tile at a position; air outside the rows. */
export function tileAt(rows: readonly string[], { column, row }: TilePlace): Tile {
  return rows[row]?.[column] ?? AIR;
}

/**
 * Returns rows with one tile changed. Setting the start removes the old one; positions outside change
 * nothing.
 */
function paintTile(rows: readonly string[], place: TilePlace, tile: Tile): readonly string[] {
  const { column, row } = place;
  const width = widthOf(rows);
  if (row < 0 || row >= rows.length || column < 0 || column >= width) return rows;
  if (tileAt(rows, place) === tile) return rows;
  const cleared = tile === START ? rows.map(text => text.replaceAll(START, AIR)) : rows;
  return cleared.map((text, r) => {
    if (r !== row) return text;
    const padded = text.padEnd(width, AIR);
    return padded.slice(0, column) + tile + padded.slice(column + 1);
  });
}

/**
 * Returns rows with every tile painted that a straight stroke crosses, both ends included. Returns the same
 * rows if nothing changes.
 */
export function paintTiles(
  rows: readonly string[],
  from: TilePlace,
  to: TilePlace,
  tile: Tile,
): readonly string[] {
  const steps = Math.max(Math.abs(to.column - from.column), Math.abs(to.row - from.row), 1);
  let painted = rows;
  for (let k = 0; k <= steps; k++) {
    const column = Math.round(from.column + ((to.column - from.column) * k) / steps);
    const row = Math.round(from.row + ((to.row - from.row) * k) / steps);
    painted = paintTile(painted, { column, row }, tile);
  }
  return painted;
}

/** Returns a level resized by whole tiles, at its right side and at its top. */
export function resizeLevel(rows: readonly string[], byColumns: number, byRows: number): readonly string[] {
  const width = Math.max(LEAST_WIDTH, widthOf(rows) + byColumns);
  const height = Math.max(LEAST_HEIGHT, rows.length + byRows);
  const kept = rows.slice(Math.max(0, rows.length - height));
  const added = Array.from({ length: height - kept.length }, () => "");
  return [...added, ...kept].map(row => row.slice(0, width).padEnd(width, AIR));
}

/** Returns the first letter without a zone; undefined if all are used. */
export function freshLetter(zones: Readonly<Record<string, string>>): string | undefined {
  return [..."abcdefghijklmnopqrstuvwxyz"].find(letter => ownValue(zones, letter) === undefined);
}

/** The most moving beams of a level. */
export const MAX_BEAMS = BOUNDS.clauses;

/** Returns a kit whose runner has one more moving beam: two tiles above the start and to its right, four tiles to and fro. */
export function addBeam(kit: Kit): Kit {
  const { level, beams = [] } = kit.stage as RunnerDocument;
  const row = Math.max(
    0,
    level.findIndex(text => text.includes(START)),
  );
  const column = Math.max(0, level[row]?.indexOf(START) ?? 0);
  const beam = { x: column + 2, y: level.length - row + 1, width: 3, across: 4, up: 0, every: "180f" };
  return writeAt(kit, ["stage", "beams"], [...beams, beam]);
}
