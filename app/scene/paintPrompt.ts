import {
  askedNow,
  firstNoteAfter,
  formatEvent,
  HIDDEN,
  notes,
  OPEN,
  promptPassed,
  traitsOf,
  type PatternProgram,
} from "#core";
import { formatBinding } from "../input/codes";
import type { Palette } from "../ui/palette";
import type { Shown } from "./scene";
import { STAGE_FONT } from "./scenery";

const NAME_FONT = '600 22px "Fraunces Variable", Georgia, serif';
const KEY_FONT = '600 17px "Atkinson Hyperlegible Mono Variable", monospace';

/** The time for which an outcome is shown, in frames. */
const FRESH_FRAMES = 60;

/** The prompt that is shown. */
export interface CurrentPrompt {
  readonly prompt: number;
  readonly isOpen: boolean;
  /** The part of its lead or its window that has passed, 0 to 1, on its own clock. */
  readonly passed: number;
  /** The pattern it asks for, or −1. */
  readonly asked: number;
}

/** Returns the current prompt: the one shown last. */
export function currentPrompt({
  state,
  program,
}: Pick<Shown, "state" | "program">): CurrentPrompt | undefined {
  if (!state) return undefined;
  let prompt = -1;
  for (let i = 0; i < state.promptStage.length; i++) {
    if (state.promptStage[i] === HIDDEN) continue;
    if (prompt < 0 || state.shownFrame[i]! >= state.shownFrame[prompt]!) prompt = i;
  }
  if (prompt < 0) return undefined;
  const isOpen = state.promptStage[prompt] === OPEN;
  const passed = promptPassed(program, state, prompt);
  return { prompt, isOpen, passed, asked: askedNow(program, state, prompt) };
}

/** Formats the last outcome before a frame while it is recent. */
export function lastOutcome(scene: Shown): { words: string; isGood: boolean } | undefined {
  const { trace, frame, program, kit } = scene;
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && frame - trace.frame[i]! <= FRESH_FRAMES; i--) {
    if (trace.kind[i] !== notes.prompt.code) continue;
    const event = formatEvent(program, trace, i);
    if (event?.kind !== "prompt" || event.outcome === "shown" || event.outcome === "open") continue;
    const name = kit.prompts?.[trace.subject[i]!]?.name ?? event.id;
    return { words: `${name}: ${event.why ?? event.outcome}`, isGood: event.outcome !== "failed" };
  }
  return undefined;
}

/** Returns the controls a pattern requires, in order, repeated as often as required. */
export function wantedControls(pattern: PatternProgram): readonly number[] {
  return traitsOf(pattern.kind).wanted(pattern);
}

/** Returns the name of a control's button on the current device. */
export function buttonName(scene: Shown, control: number): string {
  const found = scene.kit.controls[control];
  const binding =
    found?.bindings.find(codes => codes[0]!.startsWith(`${scene.inHand}:`)) ?? found?.bindings[0];
  return binding ? formatBinding(binding) : (found?.name ?? "?");
}

/**
 * Paints the current prompt: its name, its buttons on the current device, and its remaining time. `y` is the
 * line of its buttons.
 */
export function paintPrompt(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Shown,
  now: CurrentPrompt,
  width: number,
  y: number,
): void {
  const { kit, program } = scene;
  const prompt = program.prompts[now.prompt]!;
  const pattern = program.patterns[now.asked];
  ctx.textAlign = "center";
  ctx.font = NAME_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText(kit.prompts?.[now.prompt]?.name ?? prompt.id, width / 2, y - 26);
  ctx.font = KEY_FONT;
  if (pattern) {
    const buttons = wantedControls(pattern)
      .map(control => buttonName(scene, control))
      .join("  ");
    ctx.fillText(`${traitsOf(pattern.kind).promptWord}  ${buttons}`, width / 2, y);
  }
  const { isOpen, passed } = now;
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
  ctx.textAlign = "left";
}

/** Paints the outcome of the last prompt while it is recent. `y` is its line. */
export function paintOutcome(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Shown,
  x: number,
  y: number,
): boolean {
  const outcome = lastOutcome(scene);
  if (!outcome) return false;
  ctx.textAlign = "center";
  ctx.font = STAGE_FONT;
  ctx.fillStyle = outcome.isGood ? palette.moss : palette.foxglove;
  ctx.fillText(outcome.words, x, y);
  ctx.textAlign = "left";
  return true;
}
