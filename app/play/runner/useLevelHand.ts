import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { writeAt, type Kit } from "#core";
import { stageOf, type StageProgram } from "#stage";
import { useEvaluationStore } from "../../document/evaluationContext";
import { useWorkbench } from "../../document/workbenchContext";
import type { Workbench } from "../../document/workbench";
import { dragKit } from "../../document/dragKit";
import {
  AIR,
  BEAM,
  THIN_BEAM,
  paintTiles,
  START,
  tileAt,
  widthOf,
  type Tile,
  type TilePlace,
} from "../../edits/levelEdits";
import { showWhole, tileUnder } from "../../scene/scenery";

const KEYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function levelOf(kit: Kit | undefined): readonly string[] | undefined {
  const stage = kit && stageOf(kit);
  return stage?.kind === "runner" ? stage.level : undefined;
}

function paintNow(workbench: Workbench, from: TilePlace, to: TilePlace, tile: Tile): void {
  const level = levelOf(workbench.getState().kit);
  const next = level && paintTiles(level, from, to, tile);
  if (next && next !== level)
    workbench.editKit("drew the level", kit => writeAt(kit, ["stage", "level"], next));
}

/** Returns the tile below a pointer over the stage's canvas. */
function placeOf(
  stage: StageProgram | undefined,
  event: { clientX: number; clientY: number },
  canvas: Element,
): TilePlace | undefined {
  if (stage?.kind !== "runner") return undefined;
  const box = canvas.getBoundingClientRect();
  const eye = showWhole(stage, box.width, box.height);
  return tileUnder(eye, stage.level.height, event.clientX - box.left, event.clientY - box.top);
}

/** Returns the word for a tile. */
function wordOf(tile: Tile): string {
  if (tile === BEAM) return "a beam";
  if (tile === THIN_BEAM) return "a thin beam";
  if (tile === START) return "where the body starts";
  return /[a-z]/.test(tile) ? `the place ${tile}` : "air";
}

/**
 * Edits a runner's level on the stage, by pointer and by keys; `brush` is the tile it paints, undefined
 * outside the editor. Returns the position, its description, and the canvas's event handlers.
 */
export function useLevelHand(brush: Tile | undefined, onDone: () => void) {
  const workbench = useWorkbench();
  const evaluation = useEvaluationStore();
  const stageNow = () => evaluation.getState().rules?.stage;
  const [cursor, setCursor] = useState<TilePlace>({ column: 0, row: 0 });
  const last = useRef<TilePlace | undefined>(undefined);
  useEffect(() => () => void (last.current = undefined), [brush]);
  if (brush === undefined) return undefined;
  const level = levelOf(workbench.getState().kit) ?? [AIR];
  const onPointerDown = (event: PointerEvent<HTMLCanvasElement>) => {
    const canvas = event.currentTarget;
    last.current = undefined;
    dragKit(
      workbench,
      event,
      moved => {
        const place = placeOf(stageNow(), moved, canvas);
        if (!place) return;
        paintNow(workbench, last.current ?? place, place, brush);
        last.current = place;
      },
      true,
    );
  };
  const onPointerMove = (event: PointerEvent<HTMLCanvasElement>) => {
    const place = placeOf(stageNow(), event, event.currentTarget);
    if (place && (place.column !== cursor.column || place.row !== cursor.row)) setCursor(place);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLCanvasElement>) => {
    const by = KEYS[event.key];
    if (by) {
      const column = Math.max(0, Math.min(widthOf(level) - 1, cursor.column + by[0]));
      const row = Math.max(0, Math.min(level.length - 1, cursor.row + by[1]));
      setCursor({ column, row });
    } else if (event.key === " " || event.key === "Enter") paintNow(workbench, cursor, cursor, brush);
    else if (event.key === "Escape") onDone();
    else return;
    event.preventDefault();
  };
  const words = `Tile ${cursor.column + 1} across, ${level.length - cursor.row} up: ${wordOf(tileAt(level, cursor))}`;
  return { cursor, words, on: { onPointerDown, onPointerMove, onKeyDown } };
}
