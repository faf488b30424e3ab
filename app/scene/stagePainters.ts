import type { StageKindName } from "#stage";
import type { TilePlace } from "../edits/levelEdits";
import type { Palette } from "../ui/palette";
import { paintDuel } from "./duel/paintDuel";
import { paintRopes } from "./ropes/paintRopes";
import { paintRunner } from "./runner/paintRunner";
import type { Scene } from "./scene";
import type { Helps } from "./scenery";

/** The inputs of a stage's painter. */
export interface StagePicture {
  readonly ctx: CanvasRenderingContext2D;
  readonly palette: Palette;
  readonly scene: Scene;
  readonly width: number;
  readonly height: number;
  readonly helps: Helps;
  /** The tile below the pointer in the level editor. */
  readonly cursor: TilePlace | undefined;
}

/** How a kind of stage is painted, and whether its painter also paints prompts. */
export interface StagePainter {
  readonly paint: (picture: StagePicture) => void;
  readonly paintsPrompts: boolean;
}

/** The painter of each kind of stage; a missing one does not compile. */
export const STAGE_PAINTERS: Readonly<Record<StageKindName, StagePainter>> = {
  runner: { paint: paintRunner, paintsPrompts: false },
  duel: { paint: paintDuel, paintsPrompts: false },
  ropes: { paint: paintRopes, paintsPrompts: true },
};
