import { firstNoteAfter, notes } from "#core";
import type { Palette } from "../../../ui/palette";
import type { Scene } from "../scene";
import { STAGE_NUMBER_FONT, type Eye } from "../scenery";

const MOST_ARCS = 5;
/** How long the arc of a leap stays, frames. */
const ARC_STAYS = 1200;
/** A body that is this far from where it was a frame ago fell out of the level and was put back at its start. */
const RETURN_TILES = 2;
/** A height is written at the top of an arc once the body is this far from it. */
const CLEAR_PX = 56;

/** The frames on which a leap was performed, up to now, the last ones. */
function lastLeaps({ trace, frame, stage }: Scene): number[] {
  const found: number[] = [];
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && found.length < MOST_ARCS; i--) {
    if (frame - trace.frame[i]! > ARC_STAYS) break;
    if (trace.kind[i] !== notes.PERFORMED) continue;
    const act = stage.kind === "runner" ? stage.acts[trace.subject[i]!] : undefined;
    if (act?.does === "leap" || act?.does === "output") found.push(trace.frame[i]!);
  }
  return found;
}

/** The arcs of the last leaps, each with its height in tiles at its top. */
export function paintArcs(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  eye: Eye,
  bodyX: number,
  bodyY: number,
): void {
  const frames = Math.floor(scene.track.length / 2);
  const labelled: number[] = [];
  lastLeaps(scene).forEach((from, k) => {
    const floor = scene.track[Math.max(0, from - 1) * 2 + 1] ?? 0;
    let top = floor;
    let topX = 0;
    ctx.strokeStyle = palette.dew;
    ctx.globalAlpha = k === 0 ? 1 : 0.55;
    ctx.lineWidth = k === 0 ? 2 : 1.25;
    ctx.setLineDash(k === 0 ? [] : [3, 4]);
    ctx.beginPath();
    for (let f = Math.max(0, from - 1); f < Math.min(frames, scene.frame + 1); f++) {
      const x = scene.track[f * 2]!;
      const y = scene.track[f * 2 + 1]!;
      const before = scene.track[Math.max(0, f - 1) * 2]!;
      if (Math.abs(x - before) > RETURN_TILES) break;
      if (y > top) {
        top = y;
        topX = x;
      }
      // The foot of an arc: the body has come down and stands.
      const isDown = f > from + 2 && y === scene.track[(f - 1) * 2 + 1] && y === scene.track[(f - 2) * 2 + 1];
      if (f === Math.max(0, from - 1)) ctx.moveTo(x * eye.px - eye.left, eye.foot - y * eye.px);
      else ctx.lineTo(x * eye.px - eye.left, eye.foot - y * eye.px);
      if (isDown) break;
    }
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.globalAlpha = 1;
    const labelX = topX * eye.px - eye.left;
    const labelY = eye.foot - top * eye.px;
    const isUnderBody = Math.hypot(bodyX - labelX, bodyY - labelY) < CLEAR_PX;
    if (top - floor < 0.2 || isUnderBody || labelled.some(other => Math.abs(other - labelX) < 70)) return;
    labelled.push(labelX);
    ctx.font = STAGE_NUMBER_FONT;
    ctx.fillStyle = palette.ink;
    ctx.textAlign = "center";
    ctx.fillText(`${(top - floor).toFixed(1)} tiles`, labelX, labelY - 8);
    ctx.textAlign = "left";
  });
}
