/** The face of words on a stage, and of numbers. */
export const STAGE_FONT = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif';
export const STAGE_NUMBER_FONT = '12px "Atkinson Hyperlegible Mono Variable", monospace';

/** What of a player's helps is drawn. */
export interface Helps {
  readonly meters: boolean;
  readonly memory: boolean;
  readonly arcs: boolean;
}

/** Where a level is looked at from: how large a tile is, what of it lies left of the picture, and where its floor is. Px. */
export interface Eye {
  readonly px: number;
  readonly left: number;
  readonly foot: number;
}
