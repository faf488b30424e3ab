import { readMeter } from "#core";
import { paintOutcome, paintPrompt, currentPrompt, wantedControls } from "../paintPrompt";
import { fitText } from "../../ui/fitText";
import type { Palette } from "../../ui/palette";
import { paintBell, paintTower } from "../backdrop";
import { paintRinger } from "../paintRinger";
import { STAGE_FONT } from "../scenery";
import type { StagePicture } from "../stagePainters";

/** One rope of the tower, from its bell below the roof down through its woollen grip. */
interface Rope {
  readonly x: number;
  /** The distance to the next rope, in px. */
  readonly apart: number;
  readonly height: number;
  readonly name: string;
  readonly isWanted: boolean;
  readonly isDown: boolean;
  readonly frame: number;
}

const STRIPES = 5;
/** The distance between a rope and its label, and between the label and the next rope, in px. */
const LABEL_LEFT = 18;
const LABEL_RIGHT = 14;
/** The height of the ringers' floor, as a share of the picture's. */
const GALLERY = 0.58;

function paintRope(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { x, apart, height, name, isWanted, isDown, frame }: Rope,
): void {
  const bellSize = Math.min(54, height * 0.17);
  const pull = isDown ? height * 0.05 : 0;
  const gripTop = height * 0.3 + pull;
  const gripTall = height * 0.11;
  paintBell(ctx, palette, x, 10, bellSize, isDown ? Math.sin(frame / 3) * 0.45 : 0);
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = 3;
  ctx.beginPath();
  ctx.moveTo(x, 12 + bellSize);
  ctx.lineTo(x, gripTop);
  ctx.moveTo(x, gripTop + gripTall);
  ctx.quadraticCurveTo(x + (isDown ? 9 : 3), height * 0.5 + pull, x, height * 0.56 + pull);
  ctx.stroke();
  for (let k = 0; k < STRIPES; k++) {
    ctx.fillStyle =
      k % 2 === 0 ? (isWanted ? palette.lichen : palette.sand) : isDown ? palette.ink : palette.bark;
    ctx.beginPath();
    ctx.roundRect(x - 9, gripTop + (k * gripTall) / STRIPES, 18, gripTall / STRIPES, 4);
    ctx.fill();
  }
  if (isWanted) {
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 2;
    ctx.beginPath();
    ctx.roundRect(x - 13, gripTop - 4, 26, gripTall + 8, 8);
    ctx.stroke();
  }
  ctx.fillStyle = isWanted ? palette.ink : palette.soft;
  ctx.font = STAGE_FONT;
  ctx.textAlign = "left";
  ctx.fillText(
    fitText(ctx, name, apart - LABEL_LEFT - LABEL_RIGHT),
    x + LABEL_LEFT,
    gripTop + gripTall / 2 + 4,
  );
}

/** Paints the ringer at the rope of the current prompt, with raised or lowered arms. */
function paintPuller(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  height: number,
  isDown: boolean,
): void {
  paintRinger(ctx, palette, {
    x: x - 20,
    y: height * GALLERY,
    height: height * 0.27,
    facing: 1,
    lean: isDown ? 0.5 : 0.1,
    stride: isDown ? 0.7 : 0.2,
    arms: isDown ? [1.2, 0.9] : [2.5, 2.3],
    wind: 0.2,
    rise: isDown ? 0.3 : 0,
  });
}

/** Paints the ropes, the current prompt with its remaining time, and the outcome of the last one. */
export function paintRopes({ ctx, palette, scene, width, height, helps }: StagePicture): void {
  const { kit, program, state, frame } = scene;
  const now = currentPrompt(scene);
  const prompt = now && program.prompts[now.prompt]!;
  const pattern = now && program.patterns[now.asked];
  const wanted = pattern ? wantedControls(pattern) : [];
  paintTower(ctx, palette, width, height);
  const gallery = height * GALLERY;
  ctx.fillStyle = palette.bark;
  ctx.fillRect(0, gallery, width, 8);
  ctx.fillStyle = palette.moss;
  ctx.fillRect(0, gallery, width, 3);
  const ringerX = (width * ((wanted[0] ?? -1) + 1)) / (kit.controls.length + 1);
  kit.controls.forEach((control, c) => {
    const apart = width / (kit.controls.length + 1);
    const x = apart * (c + 1);
    paintRope(ctx, palette, {
      x,
      apart,
      height,
      name: control.name,
      isWanted: wanted.includes(c),
      isDown: state?.down[c] === 1,
      frame,
    });
  });
  if (wanted[0] !== undefined) paintPuller(ctx, palette, ringerX, height, state?.down[wanted[0]] === 1);
  const hasOutcome = paintOutcome(ctx, palette, scene, width / 2, height - 10);
  if (!now || !prompt || !pattern) {
    ctx.font = STAGE_FONT;
    ctx.fillStyle = palette.soft;
    ctx.textAlign = "center";
    if (!hasOutcome) ctx.fillText("Wait for the rope …", width / 2, height * 0.8);
    ctx.textAlign = "left";
    return;
  }
  paintPrompt(ctx, palette, scene, now, width, height * 0.76);
  const meter = helps.meters && state ? readMeter(program, state, now.asked) : undefined;
  if (meter && meter.ratio > 0) {
    const x = (width * ((wanted[0] ?? 0) + 1)) / (kit.controls.length + 1);
    ctx.strokeStyle = palette.moss;
    ctx.lineWidth = 5;
    ctx.beginPath();
    ctx.arc(x, height * 0.36, 34, -Math.PI / 2, -Math.PI / 2 + Math.PI * 2 * meter.ratio);
    ctx.stroke();
  }
  ctx.textAlign = "left";
}
