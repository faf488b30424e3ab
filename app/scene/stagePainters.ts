import type { StageKindName } from "#stage";
import type { TilePlace } from "../edits/levelEdits";
import type { Palette } from "../ui/palette";
import { paintDuel } from "./duel/paintDuel";
import { paintRopes } from "./ropes/paintRopes";
import { paintRunner } from "./runner/paintRunner";
import type { Scene } from "./scene";
import type { Helps } from "./scenery";

/** What a stage's picture is painted with. */
export interface StagePicture {
  readonly ctx: CanvasRenderingContext2D;
  readonly palette: Palette;
  readonly scene: Scene;
  readonly width: number;
  readonly height: number;
  readonly helps: Helps;
  /** The tile under the hand while a level is drawn. */
  readonly cursor: TilePlace | undefined;
}

/** How each kind of stage is painted; one left out does not compile. */
export const STAGE_PAINTERS: Readonly<Record<StageKindName, (picture: StagePicture) => void>> = {
  runner: paintRunner,
  duel: paintDuel,
  ropes: paintRopes,
};
