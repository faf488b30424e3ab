import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { writeAt } from "#core";
import { stageOf } from "#stage";
import { dragKit } from "../../document/dragKit";
import {
  AIR,
  BEAM,
  paintTiles,
  START,
  tileAt,
  widthOf,
  type Tile,
  type TilePlace,
} from "../../edits/levelEdits";
import { stageOfProgram } from "../../judging/staged";
import { compileOnce, editKit, workbench } from "../../document/workbench";
import { showWhole, tileUnder } from "./scenery";

const KEYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function levelNow(): readonly string[] | undefined {
  const { kit } = workbench.getState();
  const stage = kit && stageOf(kit);
  return stage?.kind === "runner" ? stage.level : undefined;
}

function paintNow(from: TilePlace, to: TilePlace, tile: Tile): void {
  const level = levelNow();
  const next = level && paintTiles(level, from, to, tile);
  if (next && next !== level) editKit("drew the level", kit => writeAt(kit, ["stage", "level"], next));
}

/** The tile of the level under a pointer over the stage's canvas. */
function placeOf(event: { clientX: number; clientY: number }, canvas: Element): TilePlace | undefined {
  const { program } = compileOnce(workbench.getState().kit);
  const stage = program && stageOfProgram(program);
  if (stage?.kind !== "runner") return undefined;
  const box = canvas.getBoundingClientRect();
  const eye = showWhole(stage, box.width, box.height);
  return tileUnder(eye, stage.level.height, event.clientX - box.left, event.clientY - box.top);
}

/** What a tile is, in a word. */
function wordOf(tile: Tile): string {
  if (tile === BEAM) return "a beam";
  if (tile === START) return "where the body starts";
  return /[a-z]/.test(tile) ? `the place ${tile}` : "air";
}

/**
 * The hand that draws a runner's level on the stage, by pointer and by keys; `brush` is the tile it leaves, undefined
 * while nothing is drawn. Gives where it is, what stands there in words, and what the canvas is to listen to.
 */
export function useLevelHand(brush: Tile | undefined, onDone: () => void) {
  const [cursor, setCursor] = useState<TilePlace>({ column: 0, row: 0 });
  const last = useRef<TilePlace | undefined>(undefined);
  useEffect(() => () => void (last.current = undefined), [brush]);
  if (brush === undefined) return undefined;
  const level = levelNow() ?? [AIR];
  const onPointerDown = (event: PointerEvent<HTMLCanvasElement>) => {
    const canvas = event.currentTarget;
    last.current = undefined;
    dragKit(
      event,
      moved => {
        const place = placeOf(moved, canvas);
        if (!place) return;
        paintNow(last.current ?? place, place, brush);
        last.current = place;
      },
      true,
    );
  };
  const onPointerMove = (event: PointerEvent<HTMLCanvasElement>) => {
    const place = placeOf(event, event.currentTarget);
    if (place && (place.column !== cursor.column || place.row !== cursor.row)) setCursor(place);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLCanvasElement>) => {
    const by = KEYS[event.key];
    if (by) {
      const column = Math.max(0, Math.min(widthOf(level) - 1, cursor.column + by[0]));
      const row = Math.max(0, Math.min(level.length - 1, cursor.row + by[1]));
      setCursor({ column, row });
    } else if (event.key === " " || event.key === "Enter") paintNow(cursor, cursor, brush);
    else if (event.key === "Escape") onDone();
    else return;
    event.preventDefault();
  };
  const words = `Tile ${cursor.column + 1} across, ${level.length - cursor.row} up: ${wordOf(tileAt(level, cursor))}`;
  return { cursor, words, on: { onPointerDown, onPointerMove, onKeyDown } };
}
