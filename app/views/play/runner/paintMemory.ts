import { firstNoteAfter, notes, TICKS } from "#core";
import { paintHatch } from "../../../ui/paintHatch";
import type { Palette } from "../../../ui/palette";
import type { Scene } from "../scene";
import { STAGE_FONT } from "../scenery";

/** A press that is remembered, as a dot over the head; the edge that is still forgiven, hatched under the feet. */
export function paintMemory(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  x: number,
  y: number,
): void {
  const { trace, frame } = scene;
  let pending = 0;
  const performed = new Set<string>();
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && trace.frame[i]! > frame - 60; i--) {
    const kind = trace.kind[i];
    const key = `${trace.subject[i]} `;
    if (kind === notes.PERFORMED || kind === notes.LOST) performed.add(key + trace.payload[trace.at[i]!]!);
    if (kind === notes.REQUEST && !performed.has(key + trace.frame[i]!)) pending++;
  }
  if (pending === 0) return;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 2;
  ctx.setLineDash([2, 3]);
  ctx.beginPath();
  ctx.arc(x, y - 12, 7, 0, Math.PI * 2);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = STAGE_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("remembered", x + 12, y - 8);
}

/** Is the ground that was left still forgiven? Only where no leap spent it. */
export function isForgiven({ trace, program, stage, frame }: Scene): boolean {
  if (stage.kind !== "runner" || stage.gates.footing < 0) return false;
  const coyote = Math.max(
    0,
    ...program.moves.flatMap(move =>
      move.needs.filter(need => need.gate === stage.gates.footing).map(need => need.coyoteTicks / TICKS),
    ),
  );
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && trace.frame[i]! > frame - coyote - 4; i--) {
    if (
      trace.kind[i] === notes.PERFORMED &&
      program.moves[trace.subject[i]!]!.spends.includes(stage.gates.footing)
    )
      return false;
    if (trace.kind[i] === notes.GATE && trace.subject[i] === stage.gates.footing)
      return trace.payload[trace.at[i]!] === 0 && frame - trace.frame[i]! < coyote;
  }
  return false;
}

/** The edge that still counts: hatched ground under the feet, though there is none. */
export function paintForgiven(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  px: number,
): void {
  paintHatch(ctx, x - px * 0.7, y, px * 1.4, 9, palette.lichen);
  ctx.font = STAGE_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("still forgiven", x + px * 0.8, y + 8);
}
