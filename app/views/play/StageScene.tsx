import { useEffect, useRef } from "react";
import { pad } from "../../input/pad";
import { usePad } from "../../input/usePad";
import { playhead } from "../../document/playhead";
import type { Tile, TilePlace } from "../../edits/levelEdits";
import { workbench } from "../../document/workbench";
import { readPalette } from "../../ui/palette";
import { tapeLook } from "../../tape/tapeLook";
import { paintDuel } from "./paintDuel";
import { paintRopes } from "./paintRopes";
import { paintRunner } from "./paintRunner";
import type { Helps } from "./scenery";
import { useLevelHand } from "./useLevelHand";
import { readScene } from "./scene";

/** Paints the scene as it now is. False when it is not whole yet: a far frame is still being come to. */
function paint(canvas: HTMLCanvasElement, helps: Helps, cursor: TilePlace | undefined): boolean {
  const ctx = canvas.getContext("2d", { alpha: false });
  const box = canvas.getBoundingClientRect();
  if (!ctx || box.width === 0) return true;
  const ratio = window.devicePixelRatio || 1;
  const width = Math.round(box.width * ratio);
  const height = Math.round(box.height * ratio);
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  const palette = readPalette(canvas);
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(0, 0, box.width, box.height);
  const scene = readScene();
  if (!scene) return true;
  if (scene.stage.kind === "runner") paintRunner(ctx, palette, scene, box.width, box.height, helps, cursor);
  else if (scene.stage.kind === "duel") paintDuel(ctx, palette, scene, box.width, box.height, helps);
  else paintRopes(ctx, palette, scene, box.width, box.height, helps);
  canvas.dataset.frame = String(scene.frame);
  return scene.state !== undefined;
}

/** The stage, drawn anew on every frame that is stepped, and wherever the playhead goes; a sheet to draw the level on while there is a brush. */
export function StageScene({
  helps,
  label,
  brush,
  onDone,
}: {
  helps: Helps;
  label: string;
  brush: Tile | undefined;
  onDone: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const hand = useLevelHand(brush, onDone);
  const cursor = hand?.cursor;
  const isAwake = usePad(state => state.session !== undefined);
  useEffect(() => {
    let request = 0;
    const ask = () => {
      request ||= requestAnimationFrame(() => {
        request = 0;
        if (canvas.current && !paint(canvas.current, helps, cursor)) ask();
      });
    };
    const resizing = new ResizeObserver(ask);
    if (canvas.current) resizing.observe(canvas.current);
    const stops = [
      pad.subscribe(ask),
      playhead.subscribe(ask),
      workbench.subscribe(ask),
      tapeLook.subscribe(ask),
    ];
    window.addEventListener("moss-tap-theme", ask);
    ask();
    return () => {
      cancelAnimationFrame(request);
      resizing.disconnect();
      stops.forEach(stop => stop());
      window.removeEventListener("moss-tap-theme", ask);
    };
  }, [helps, cursor]);
  const isDrawing = hand !== undefined;
  useEffect(() => {
    if (isDrawing) canvas.current?.focus();
  }, [isDrawing]);
  return (
    <canvas
      ref={canvas}
      role={hand ? "application" : "img"}
      tabIndex={hand ? 0 : undefined}
      aria-label={
        hand
          ? `The level. ${hand.words}. Arrows move, Space draws, Escape ends.`
          : `${label}. The tape below tells the same, frame by frame.`
      }
      {...hand?.on}
      data-testid="stage"
      data-hands
      className={`block h-full w-full touch-none ${hand ? "cursor-crosshair" : ""} ${isAwake ? "outline-3 -outline-offset-3 outline-moss" : ""}`}
    />
  );
}
