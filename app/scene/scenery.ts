import { BODY_HEIGHT, type RunnerProgram } from "#stage";
import type { TilePlace } from "../edits/levelEdits";

/** The font of text on a stage, and of numbers. */
export const STAGE_FONT = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif';
export const STAGE_NUMBER_FONT = '12px "Atkinson Hyperlegible Mono Variable", monospace';

/** Which of the player's aids are drawn, and how close the picture is. */
export interface Helps {
  readonly meters: boolean;
  readonly memory: boolean;
  readonly arcs: boolean;
  readonly closeness: Closeness;
}

/** An aid of the player. */
export type Help = Exclude<keyof Helps, "closeness">;

/** How close a stage is shown: the whole level, its height with the body followed, or closer still. */
export type Closeness = "fit" | "near" | "nearer";

/** The viewport of a level: the size of a tile, the horizontal offset, and the position of its floor. Px. */
export interface Eye {
  readonly px: number;
  readonly left: number;
  readonly foot: number;
}

/** The space above the body for its meters and words. */
const HEADROOM_PX = 48;
const FOOT_PX = 6;
/** The minimum tile size; a level too tall to fit scrolls instead, so that the body stays readable. */
const LEAST_TILE_PX = 27;
/** The least number of tiles in sight across the picture, so that one sees where one runs. */
const TILES_ACROSS = { near: 18, nearer: 12 };

/** Returns the size of a tile, a whole number of pixels, so that tiles are crisp. */
function tilePxOf(closeness: Closeness, { level }: RunnerProgram, width: number, height: number): number {
  const tall = height / (level.height + 0.5);
  if (closeness === "fit") return Math.max(4, Math.floor(Math.min(width / level.width, tall)));
  const wide = width / TILES_ACROSS[closeness];
  const near = Math.min(wide, Math.max(LEAST_TILE_PX, tall));
  return Math.floor(Math.max(14, closeness === "near" ? near : Math.min(wide, near * 1.5)));
}

/**
 * Returns a viewport of some closeness, with the body two fifths from the left and never above the top. A level smaller
 * than the picture is centred.
 */
export function followBody(
  stage: RunnerProgram,
  x: number,
  y: number,
  width: number,
  height: number,
  closeness: Closeness = "near",
): Eye {
  const px = tilePxOf(closeness, stage, width, height);
  const most = stage.level.width * px - width;
  const left = Math.max(0, Math.min(Math.max(0, most), x * px - width * 0.4));
  const foot = Math.max(height - FOOT_PX, (y + BODY_HEIGHT) * px + HEADROOM_PX);
  return { px, left: Math.round(most < 0 ? most / 2 : left), foot: Math.round(foot) };
}

/** Returns a viewport that shows the whole level, for editing. */
export function showWhole({ level, tilePx }: RunnerProgram, width: number, height: number): Eye {
  const px = Math.max(4, Math.min(tilePx, width / level.width, (height - 2 * FOOT_PX) / level.height));
  return { px, left: (level.width * px - width) / 2, foot: height - FOOT_PX };
}

/** Returns the tile drawn at a position of the picture; it may be outside the level. */
export function tileUnder(eye: Eye, levelHeight: number, x: number, y: number): TilePlace {
  return {
    column: Math.floor((x + eye.left) / eye.px),
    row: levelHeight - 1 - Math.floor((eye.foot - y) / eye.px),
  };
}
