import type { TapeModel, TapeRow } from "./tapeRows";

/** A stroke on a lane: paints a new stretch, pulls an end of one, moves one, or clears. Frames. */
export interface Stroke {
  readonly row: number;
  readonly grip: "new" | "start" | "end" | "body" | "wipe";
  readonly startFrame: number;
  readonly spanFrom: number;
  readonly spanTo: number;
}

/**
 * The result of a stroke: a range that is cleared first, then one that is filled; empty ones have from = to.
 */
export interface StrokeResult {
  readonly wipeFrom: number;
  readonly wipeTo: number;
  readonly fillFrom: number;
  readonly fillTo: number;
}

/** Returns whether this row can be painted on: lanes of the take can, recognised rows cannot. */
export function isPaintable(row: TapeRow): boolean {
  const isLane = row.group === "controls" || row.group === "gates" || row.group === "time";
  return isLane && row.folded === 0 && !row.spanLook.includes("facing");
}

/**
 * Begins a stroke at a position of a row, given as a fractional frame. `reach` is the distance in frames
 * within which an end is grabbed.
 */
export function beginStroke(
  model: TapeModel,
  row: number,
  at: number,
  reach: number,
  isWipe: boolean,
): Stroke | undefined {
  const found = model.rows[row];
  if (!found || !isPaintable(found)) return undefined;
  const startFrame = Math.floor(at);
  const span = found.spanFrom.findIndex(
    (from, k) => found.spanLook[k] !== "forgiven" && from - reach <= at && at <= found.spanTo[k]! + reach,
  );
  const none = { row, startFrame, spanFrom: startFrame, spanTo: startFrame };
  if (isWipe) return { ...none, grip: "wipe" };
  if (span < 0) return { ...none, grip: "new" };
  const spanFrom = found.spanFrom[span]!;
  const spanTo = found.spanTo[span]!;
  const near = Math.min(reach, (spanTo - spanFrom) / 3);
  const grip = at < spanFrom + near ? "start" : at > spanTo - near ? "end" : "body";
  return { row, grip, startFrame, spanFrom, spanTo };
}

/**
 * Returns the result of a stroke with the pointer on a frame. Never beyond the take, at least one frame long.
 */
export function endStroke(stroke: Stroke, frame: number, frames: number): StrokeResult {
  const { grip, startFrame, spanFrom, spanTo } = stroke;
  const clamp = (at: number) => Math.max(0, Math.min(frames, at));
  const low = clamp(Math.min(startFrame, frame));
  const high = clamp(Math.max(startFrame, frame) + 1);
  switch (grip) {
    case "new":
      return { wipeFrom: low, wipeTo: low, fillFrom: low, fillTo: high };
    case "wipe":
      return { wipeFrom: low, wipeTo: high, fillFrom: low, fillTo: low };
    case "start":
      return {
        wipeFrom: spanFrom,
        wipeTo: spanTo,
        fillFrom: clamp(Math.min(frame, spanTo - 1)),
        fillTo: spanTo,
      };
    case "end":
      return {
        wipeFrom: spanFrom,
        wipeTo: spanTo,
        fillFrom: spanFrom,
        fillTo: clamp(Math.max(frame + 1, spanFrom + 1)),
      };
    case "body": {
      const by = Math.max(-spanFrom, Math.min(frames - spanTo, frame - startFrame));
      return { wipeFrom: spanFrom, wipeTo: spanTo, fillFrom: spanFrom + by, fillTo: spanTo + by };
    }
  }
}
