import { parseFrames, readAt, traitsOf, type Kit, type PathStep } from "#core";

type Rounding = "atLeast" | "atMost";
import type { TapeModel, TapeRow } from "./tapeRows";

/**
 * The end of a window that can be pulled on the tape: it stands at the left edge of `edge`; pulled to another edge, the
 * number at `path` becomes (edge − anchor) frames.
 */
export interface TapeHandle {
  readonly row: number;
  readonly edge: number;
  readonly anchor: number;
  readonly least: number;
  readonly path: readonly PathStep[];
  readonly rounding: Rounding;
  /** What the number means, for the words beside the hand: "remembered for". */
  readonly words: string;
}

function framesAt(kit: Kit, path: readonly PathStep[], rounding: Rounding): number {
  const written = readAt(kit, path);
  return typeof written === "string" ? (parseFrames(written, kit.rate, rounding) ?? 0) : 0;
}

/** The last press of a control's row inside a stretch of frames. */
function lastPress(model: TapeModel, control: string, from: number, to: number): number {
  const row = model.rows.find(item => item.group === "controls" && item.id === control);
  return row?.spanFrom.findLast(press => press >= from && press < to) ?? from;
}

function handlesOfPattern(kit: Kit, model: TapeModel, row: TapeRow, at: number): TapeHandle[] {
  const i = kit.patterns.findIndex(pattern => pattern.id === row.id);
  const pattern = kit.patterns[i];
  if (!pattern || pattern.clock === "real") return [];
  const starts = row.spanFrom.flatMap((from, k) =>
    row.spanLook[k] === "forming" ? [{ from, to: row.spanTo[k]! }] : [],
  );
  const pulls = traitsOf(pattern.kind).pulls ?? [];
  return pulls.flatMap(({ field, rounding, since, extra, words }) => {
    const path = ["patterns", i, field];
    const frames = framesAt(kit, path, rounding);
    return starts.map((span): TapeHandle => {
      const pressed =
        since === "last-press" && "control" in pattern
          ? lastPress(model, pattern.control, span.from, span.to)
          : span.from;
      const anchor = pressed + extra;
      return { row: at, edge: anchor + frames, anchor, least: 1, path, rounding, words };
    });
  });
}

/** Where each gate that a performed move opens closes again. */
function handlesOfOpenings(kit: Kit, row: TapeRow, at: number, m: number): TapeHandle[] {
  const performed = row.markFrame.filter((_, k) => row.markLook[k] === "performed");
  return (kit.moves?.[m]?.opens ?? []).flatMap((_, k) => {
    const path = ["moves", m, "opens", k, "to"];
    const to = framesAt(kit, path, "atMost");
    const least = framesAt(kit, ["moves", m, "opens", k, "from"], "atLeast");
    return performed.map((frame): TapeHandle => ({
      row: at,
      edge: frame + to + 1,
      anchor: frame + 1,
      least,
      path,
      rounding: "atMost",
      words: "open until",
    }));
  });
}

function handlesOfMove(kit: Kit, row: TapeRow, at: number): TapeHandle[] {
  const m = kit.moves?.findIndex(move => move.id === row.id) ?? -1;
  if (m < 0) return [];
  const path = ["moves", m, "buffer"];
  const buffer = framesAt(kit, path, "atMost");
  const defer = framesAt(kit, ["moves", m, "defer"], "atLeast");
  const memories = row.markMade.map((made): TapeHandle => {
    const anchor = made + defer + 1;
    return {
      row: at,
      edge: anchor + buffer,
      anchor,
      least: 0,
      path,
      rounding: "atMost",
      words: "remembered for",
    };
  });
  return [...memories, ...handlesOfOpenings(kit, row, at, m)];
}

function handlesOfGate(kit: Kit, row: TapeRow, at: number, frames: number): TapeHandle[] {
  const needs = (kit.moves ?? []).flatMap((move, m) =>
    (move.needs ?? []).flatMap((need, k) =>
      need.gate === row.id && !move.off ? [{ path: ["moves", m, "needs", k, "coyote"] as PathStep[] }] : [],
    ),
  );
  const longest = needs
    .map(need => ({ ...need, frames: framesAt(kit, need.path, "atMost") }))
    .sort((a, b) => b.frames - a.frames)[0];
  if (!longest) return [];
  return row.spanFrom.flatMap((_, k): TapeHandle[] => {
    const to = row.spanTo[k]!;
    const hasTail = row.spanLook[k + 1] === "forgiven" && row.spanFrom[k + 1] === to;
    if (row.spanLook[k] !== "open" || to >= frames || (longest.frames > 0 && !hasTail)) return [];
    const edge = to + longest.frames;
    return [
      { row: at, edge, anchor: to, least: 0, path: longest.path, rounding: "atMost", words: "forgiven for" },
    ];
  });
}

function handlesOfPrompt(kit: Kit, row: TapeRow, at: number): TapeHandle[] {
  const p = kit.prompts?.findIndex(prompt => prompt.id === row.id) ?? -1;
  const path = ["prompts", p, "window"];
  const window = framesAt(kit, path, "atMost");
  return row.spanFrom.flatMap((from, k) =>
    row.spanLook[k] === "window"
      ? [
          {
            row: at,
            edge: from + window + 1,
            anchor: from + 1,
            least: 0,
            path,
            rounding: "atMost",
            words: "open for",
          },
        ]
      : [],
  );
}

/** Every end on one row that can be pulled, at full speed of the clock. */
export function listHandles(kit: Kit, model: TapeModel, at: number): TapeHandle[] {
  const row = model.rows[at];
  switch (row?.group) {
    case "patterns":
      return handlesOfPattern(kit, model, row, at);
    case "moves":
      return handlesOfMove(kit, row, at);
    case "gates":
      return handlesOfGate(kit, row, at, model.frames);
    case "prompts":
      return handlesOfPrompt(kit, row, at);
    default:
      return [];
  }
}
