import {
  firstNoteAfter,
  formatEvent,
  HIDDEN,
  notes,
  OPEN,
  readMeter,
  TICKS,
  type PatternProgram,
} from "#core";
import { formatBinding } from "../../../input/codes";
import type { Scene } from "../scene";
import type { Palette } from "../../../ui/palette";
import { paintBell, paintTower } from "../backdrop";
import { paintRinger } from "../paintRinger";
import { STAGE_FONT } from "../scenery";
import type { StagePicture } from "../stageScreens";

const NAME_FONT = '600 22px "Fraunces Variable", Georgia, serif';
const KEY_FONT = '600 17px "Atkinson Hyperlegible Mono Variable", monospace';

/** How long an outcome is still told. */
const FRESH_FRAMES = 60;

/** The prompt that stands now: the one shown last of those that do. */
function promptNow({ state }: Scene): { prompt: number; isOpen: boolean; since: number } | undefined {
  if (!state) return undefined;
  let prompt = -1;
  for (let i = 0; i < state.promptStage.length; i++) {
    if (state.promptStage[i] === HIDDEN) continue;
    if (prompt < 0 || state.shownFrame[i]! >= state.shownFrame[prompt]!) prompt = i;
  }
  if (prompt < 0) return undefined;
  const isOpen = state.promptStage[prompt] === OPEN;
  return { prompt, isOpen, since: (isOpen ? state.openFrame : state.shownFrame)[prompt]! };
}

/** The last outcome before a frame, in a word or two, while it is fresh. */
function lastOutcome(scene: Scene): { words: string; isGood: boolean } | undefined {
  const { trace, frame, program, kit } = scene;
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && frame - trace.frame[i]! <= FRESH_FRAMES; i--) {
    if (trace.kind[i] !== notes.PROMPT) continue;
    const event = formatEvent(program, trace, i);
    if (event?.kind !== "prompt" || event.outcome === "shown" || event.outcome === "open") continue;
    const name = kit.prompts?.[trace.subject[i]!]?.name ?? event.id;
    return { words: `${name}: ${event.why ?? event.outcome}`, isGood: event.outcome !== "failed" };
  }
  return undefined;
}

/** The controls a pattern wants, in order, each once or as often as it is wanted. */
function wantedControls(pattern: PatternProgram): readonly number[] {
  if (pattern.kind === "sequence")
    return pattern.steps.flatMap(step => ("control" in step ? [step.control] : []));
  return "control" in pattern ? [pattern.control] : pattern.controls;
}

/** The name of a control's button on the device in the hand. */
export function buttonName(scene: Scene, control: number): string {
  const found = scene.kit.controls[control];
  const binding =
    found?.bindings.find(codes => codes[0]!.startsWith(`${scene.inHand}:`)) ?? found?.bindings[0];
  return binding ? formatBinding(binding) : (found?.name ?? "?");
}

/** What is to be done with the buttons of a pattern, in a word. */
function howWords(pattern: PatternProgram): string {
  switch (pattern.kind) {
    case "hold":
      return "hold";
    case "mash":
      return "haul, one after the other";
    case "sequence":
      return "in this order";
    default:
      return "press";
  }
}

/** One rope of the tower, from its bell under the roof down through its woollen grip. */
interface Rope {
  readonly x: number;
  readonly height: number;
  readonly name: string;
  readonly isWanted: boolean;
  readonly isDown: boolean;
  readonly frame: number;
}

const STRIPES = 5;
/** Where the ringers stand, as a share of the height. */
const GALLERY = 0.58;

function paintRope(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { x, height, name, isWanted, isDown, frame }: Rope,
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
  ctx.fillText(name, x + 18, gripTop + gripTall / 2 + 4);
}

/** The ringer at the rope that is asked for: arms up on it, or drawn down. */
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

/** Draws the ropes, the prompt that is shown with its time running, and what became of the last one. */
export function paintRopes({ ctx, palette, scene, width, height, helps }: StagePicture): void {
  const { kit, program, state, frame } = scene;
  const now = promptNow(scene);
  const prompt = now && program.prompts[now.prompt]!;
  const pattern = prompt && program.patterns[prompt.ask[0] ?? 0];
  const wanted = pattern ? wantedControls(pattern) : [];
  paintTower(ctx, palette, width, height);
  const gallery = height * GALLERY;
  ctx.fillStyle = palette.bark;
  ctx.fillRect(0, gallery, width, 8);
  ctx.fillStyle = palette.moss;
  ctx.fillRect(0, gallery, width, 3);
  const ringerX = (width * ((wanted[0] ?? -1) + 1)) / (kit.controls.length + 1);
  kit.controls.forEach((control, c) => {
    const x = (width * (c + 1)) / (kit.controls.length + 1);
    paintRope(ctx, palette, {
      x,
      height,
      name: control.name,
      isWanted: wanted.includes(c),
      isDown: state?.down[c] === 1,
      frame,
    });
  });
  if (wanted[0] !== undefined) paintPuller(ctx, palette, ringerX, height, state?.down[wanted[0]] === 1);
  const outcome = lastOutcome(scene);
  ctx.textAlign = "center";
  if (outcome) {
    ctx.font = STAGE_FONT;
    ctx.fillStyle = outcome.isGood ? palette.moss : palette.foxglove;
    ctx.fillText(outcome.words, width / 2, height - 10);
  }
  if (!now || !prompt || !pattern) {
    ctx.font = STAGE_FONT;
    ctx.fillStyle = palette.soft;
    if (!outcome) ctx.fillText("Wait for the rope …", width / 2, height * 0.8);
    ctx.textAlign = "left";
    return;
  }
  const y = height * 0.76;
  ctx.font = NAME_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText(kit.prompts?.[now.prompt]?.name ?? prompt.id, width / 2, y - 26);
  ctx.font = KEY_FONT;
  const buttons = wanted.map(control => buttonName(scene, control)).join("  ");
  ctx.fillText(`${howWords(pattern)}  ${buttons}`, width / 2, y);
  const { isOpen } = now;
  const length = isOpen ? prompt.windowTicks / TICKS : Math.max(1, prompt.leadTicks / TICKS);
  const passed = Math.min(1, (frame - now.since) / length);
  const barWidth = Math.min(420, width * 0.6);
  const barX = (width - barWidth) / 2;
  ctx.fillStyle = palette.sand;
  ctx.fillRect(barX, y + 14, barWidth, 12);
  ctx.fillStyle = isOpen ? palette.lichen : palette.fern;
  ctx.fillRect(barX, y + 14, barWidth * (isOpen ? 1 - passed : passed), 12);
  if (isOpen && prompt.targetTicks > 0) {
    ctx.fillStyle = palette.ink;
    ctx.fillRect(barX + barWidth * (1 - prompt.targetTicks / prompt.windowTicks) - 1, y + 10, 2, 20);
  }
  const meter = helps.meters && state ? readMeter(program, state, prompt.ask[0] ?? 0) : undefined;
  if (meter && meter.ratio > 0 && (pattern.kind === "hold" || pattern.kind === "sequence")) {
    const x = (width * ((wanted[0] ?? 0) + 1)) / (kit.controls.length + 1);
    ctx.strokeStyle = palette.moss;
    ctx.lineWidth = 5;
    ctx.beginPath();
    ctx.arc(x, height * 0.36, 34, -Math.PI / 2, -Math.PI / 2 + Math.PI * 2 * meter.ratio);
    ctx.stroke();
  }
  ctx.textAlign = "left";
}
