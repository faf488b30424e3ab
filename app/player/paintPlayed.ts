import type { Rules } from "#stage";
import { paintBare } from "../scene/paintBare";
import { paintOutcome, paintPrompt, currentPrompt } from "../scene/paintPrompt";
import { onStage, shownAtRest, shownOfSession } from "../scene/scene";
import { STAGE_PAINTERS } from "../scene/stagePainters";
import { readPalette } from "../ui/palette";
import type { Round } from "./round";

const HELPS = { meters: true, memory: true, arcs: false, closeness: "near" } as const;
const PROMPT_Y = 74;
/** Resizes a canvas to its box on screen; returns its context, scaled to CSS px. */
function readyCanvas(canvas: HTMLCanvasElement) {
  const ctx = canvas.getContext("2d", { alpha: false });
  const { width, height } = canvas.getBoundingClientRect();
  if (!ctx || width === 0) return undefined;
  const ratio = window.devicePixelRatio || 1;
  const wide = Math.round(width * ratio);
  const tall = Math.round(height * ratio);
  if (canvas.width !== wide || canvas.height !== tall) Object.assign(canvas, { width: wide, height: tall });
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  const palette = readPalette(canvas);
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(0, 0, width, height);
  return { ctx, palette, width, height };
}

/** Paints the kit's current state: its stage or its meters, and the current prompt. */
export function paintPlayed(canvas: HTMLCanvasElement, rules: Rules, round: Round | undefined): void {
  const ready = readyCanvas(canvas);
  if (!ready) return;
  const { ctx, palette, width, height } = ready;
  const inHand = round?.inHand() ?? "key";
  const shown = round ? shownOfSession(round.session, inHand) : shownAtRest(rules, inHand);
  const scene = onStage(rules, shown);
  if (scene) {
    const picture = { ctx, palette, scene, width, height, helps: HELPS, cursor: undefined };
    STAGE_PAINTERS[scene.stage.kind].paint(picture);
  } else paintBare(ctx, palette, shown, width, height);
  if (scene && STAGE_PAINTERS[scene.stage.kind].paintsPrompts) return;
  const now = currentPrompt(shown);
  if (now) paintPrompt(ctx, palette, shown, now, width, PROMPT_Y);
  else paintOutcome(ctx, palette, shown, width / 2, PROMPT_Y);
}
