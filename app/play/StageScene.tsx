import { useEffect, useRef } from "react";
import type { Tile, TilePlace } from "../edits/levelEdits";
import { describeCanvas } from "../ui/describeCanvas";
import { readPalette } from "../ui/palette";
import type { Helps } from "../scene/scenery";
import { useLevelHand } from "./runner/useLevelHand";
import { readScene, type SceneSources } from "./model/readScene";
import { STAGE_PAINTERS } from "../scene/stagePainters";
import { useSceneSources } from "./useSceneSources";
import { usePadState } from "../input/context";

/**
 * Paints the current scene. Returns its frame, and whether it is complete or a distant frame is still being
 * computed; undefined if there is nothing to paint.
 */
function paint(
  canvas: HTMLCanvasElement,
  sources: SceneSources,
  helps: Helps,
  cursor: TilePlace | undefined,
): { readonly frame: number; readonly isWhole: boolean } | undefined {
  const ctx = canvas.getContext("2d", { alpha: false });
  const box = canvas.getBoundingClientRect();
  if (!ctx || box.width === 0) return undefined;
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
  const scene = readScene(sources);
  if (!scene) return undefined;
  const { width: w, height: h } = box;
  STAGE_PAINTERS[scene.stage.kind].paint({ ctx, palette, scene, width: w, height: h, helps, cursor });
  return { frame: scene.frame, isWhole: scene.state !== undefined };
}

/**
 * The stage, repainted on every stepped frame and whenever the playhead moves; the level editor while there
 * is a brush.
 */
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
  const sources = useSceneSources();
  const canvas = useRef<HTMLCanvasElement>(null);
  const hand = useLevelHand(brush, onDone);
  const cursor = hand?.cursor;
  const isAwake = usePadState(state => state.session !== undefined);
  useEffect(() => {
    let request = 0;
    let painted = -1;
    const ask = () => {
      request ||= requestAnimationFrame(() => {
        request = 0;
        const done = canvas.current && paint(canvas.current, sources, helps, cursor);
        if (done) painted = done.frame;
        if (done && !done.isWhole) ask();
      });
    };
    const resizing = new ResizeObserver(ask);
    const ending = new AbortController();
    if (canvas.current) {
      resizing.observe(canvas.current);
      describeCanvas(canvas.current, () => ({ frame: painted }), ending.signal);
    }
    const stops = [
      sources.pad.subscribe(ask),
      sources.playback.subscribe(ask),
      sources.evaluation.subscribe(ask),
      sources.tape.look.subscribe(ask),
    ];
    window.addEventListener("moss-tap-theme", ask);
    ask();
    return () => {
      cancelAnimationFrame(request);
      ending.abort();
      resizing.disconnect();
      stops.forEach(stop => stop());
      window.removeEventListener("moss-tap-theme", ask);
    };
  }, [sources, helps, cursor]);
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
          : `${label}. The tape below shows the same, frame by frame.`
      }
      {...hand?.on}
      data-testid="stage"
      data-hands
      className={`block h-full w-full touch-none ${hand ? "cursor-crosshair" : ""} ${isAwake ? "outline-3 -outline-offset-3 outline-moss" : ""}`}
    />
  );
}
