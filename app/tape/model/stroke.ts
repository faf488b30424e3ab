import type { TapeModel, TapeRow } from "./tapeRows";

/** What a hand does to a lane: paints a new stretch, pulls an end of one, moves one, or wipes. Frames. */
export interface Stroke {
  readonly row: number;
  readonly grip: "new" | "start" | "end" | "body" | "wipe";
  readonly startFrame: number;
  readonly spanFrom: number;
  readonly spanTo: number;
}

/** What a stroke comes to: a stretch that is emptied first, then one that is filled; empty ones have from = to. */
export interface StrokeResult {
  readonly wipeFrom: number;
  readonly wipeTo: number;
  readonly fillFrom: number;
  readonly fillTo: number;
}

/** Can this row be painted on? Lanes of the take can; what the core made of them cannot. */
export function isPaintable(row: TapeRow): boolean {
  const isLane = row.group === "controls" || row.group === "gates" || row.group === "time";
  return isLane && row.folded === 0 && !row.spanLook.includes("facing");
}

/** Begins a stroke at a place of a row, given as a frame with its fraction. `reach`: how near an end counts, in frames. */
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

/** What a stroke comes to when the hand is on a frame. Never beyond the take, never less than one frame long. */
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
