import { findLeaps, measureArc } from "#stage";
import type { Palette } from "../../ui/palette";
import type { Scene } from "../scene";
import { STAGE_NUMBER_FONT, type Eye } from "../scenery";

const MAX_ARCS = 5;
/** The time for which the arc of a leap is shown, in frames. */
const ARC_STAYS = 1200;
/** The height is written at the top of an arc once the body is this far from it. */
const CLEAR_PX = 56;
/** The minimum distance between height labels. */
const APART_PX = 70;
/** A lower leap has no label. */
const LEAST_TILES = 0.2;

/** Draws a path of x, y pairs, in tiles. */
function traceWay(
  ctx: CanvasRenderingContext2D,
  eye: Eye,
  way: ArrayLike<number>,
  from: number,
  to: number,
): void {
  ctx.beginPath();
  for (let f = from; f <= to; f++) {
    const x = way[f * 2]! * eye.px - eye.left;
    const y = eye.foot - way[f * 2 + 1]! * eye.px;
    if (f === from) ctx.moveTo(x, y);
    else ctx.lineTo(x, y);
  }
  ctx.stroke();
}

function writeHeight(ctx: CanvasRenderingContext2D, words: string, x: number, y: number): void {
  ctx.font = STAGE_NUMBER_FONT;
  ctx.textAlign = "center";
  ctx.fillText(words, x, y - 8);
  ctx.textAlign = "left";
}

/** Paints the kept arcs, each with its number in the list and its height. */
function paintKept(ctx: CanvasRenderingContext2D, palette: Palette, scene: Scene, eye: Eye): void {
  ctx.strokeStyle = palette.foxglove;
  ctx.fillStyle = palette.foxglove;
  ctx.lineWidth = 1.25;
  ctx.setLineDash([7, 4]);
  scene.keptArcs.forEach(({ way, heightTiles }, k) => {
    const last = way.length / 2 - 1;
    traceWay(ctx, eye, way, 0, last);
    let top = 0;
    for (let f = 1; f <= last; f++) if (way[f * 2 + 1]! > way[top * 2 + 1]!) top = f;
    const x = way[top * 2]! * eye.px - eye.left;
    writeHeight(ctx, `${k + 1}: ${heightTiles.toFixed(1)}`, x, eye.foot - way[top * 2 + 1]! * eye.px - 12);
  });
  ctx.setLineDash([]);
}

/** Paints the arcs of the last leaps, each with its height in tiles at its top, and the kept arcs. */
export function paintArcs(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  eye: Eye,
  bodyX: number,
  bodyY: number,
): void {
  const { stage, trace, track, frame } = scene;
  if (stage.kind !== "runner") return;
  paintKept(ctx, palette, scene, eye);
  const labelled: number[] = [];
  findLeaps(trace, stage, frame, MAX_ARCS, frame - ARC_STAYS).forEach((leap, k) => {
    const { from, to, heightTiles, topFrame } = measureArc(track, leap, frame);
    ctx.strokeStyle = palette.dew;
    ctx.globalAlpha = k === 0 ? 1 : 0.55;
    ctx.lineWidth = k === 0 ? 2 : 1.25;
    ctx.setLineDash(k === 0 ? [] : [3, 4]);
    traceWay(ctx, eye, track, Math.max(0, from - 1), to);
    ctx.setLineDash([]);
    ctx.globalAlpha = 1;
    const labelX = track[topFrame * 2]! * eye.px - eye.left;
    const labelY = eye.foot - track[topFrame * 2 + 1]! * eye.px;
    const isUnderBody = Math.hypot(bodyX - labelX, bodyY - labelY) < CLEAR_PX;
    const isCrowded = labelled.some(other => Math.abs(other - labelX) < APART_PX);
    if (heightTiles < LEAST_TILES || isUnderBody || isCrowded) return;
    labelled.push(labelX);
    ctx.fillStyle = palette.ink;
    writeHeight(ctx, `${heightTiles.toFixed(1)} tiles`, labelX, labelY);
  });
}
