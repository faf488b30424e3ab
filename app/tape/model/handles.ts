import {
  firstAbove,
  parseFrames,
  readAt,
  TICKS,
  traitsOf,
  type Kit,
  type PathStep,
  type TakeClock,
} from "#core";
import { rowWithin, type TapeModel, type TapeRow } from "./tapeRows";

type Rounding = "atLeast" | "atMost";

/** The end of a window, as requested. */
interface WindowEnd {
  /** The position of the edge for a length of 0. */
  readonly anchor: number;
  /**
   * The frame the edge precedes: the first that reaches the length, the first past it, or the one after it
   * was reached.
   */
  readonly ends: "reach" | "past" | "after";
  /** Whether the length counts on the real clock. */
  readonly isReal: boolean;
}

/**
 * The end of a window that can be pulled on the tape. It is at the left edge of `edge`, where the take's
 * clock, including hit stops, reached its length; pulled elsewhere, the number at `path` becomes the length
 * up to there.
 */
export interface TapeHandle extends WindowEnd {
  readonly row: number;
  readonly edge: number;
  readonly least: number;
  readonly path: readonly PathStep[];
  readonly rounding: Rounding;
  /** A label for the number, shown beside the pointer: "buffer". */
  readonly words: string;
}

/** Returns the edge of a window of a number of frames; Infinity if a freeze never ends. */
export function edgeOfWindow({ anchor, ends, isReal }: WindowEnd, clock: TakeClock, frames: number): number {
  if (isReal) return anchor + frames;
  if (ends === "reach") return clock.frameAtAge(anchor, frames * TICKS);
  if (ends === "past") return clock.frameAtAge(anchor - 1, frames * TICKS + 1);
  return clock.frameAtAge(anchor - 1, frames * TICKS) + 1;
}

/** Returns the length, in frames, of the longest window with that edge. */
export function framesOfWindow({ anchor, ends, isReal }: WindowEnd, clock: TakeClock, edge: number): number {
  if (isReal) return edge - anchor;
  const age = (from: number, to: number) => (clock.ticksAt(to) - clock.ticksAt(from)) / TICKS;
  if (ends === "reach") return Math.floor(age(anchor, edge));
  return ends === "past" ? Math.ceil(age(anchor - 1, edge)) - 1 : Math.floor(age(anchor - 1, edge - 1));
}

function framesAt(kit: Kit, path: readonly PathStep[], rounding: Rounding): number {
  const written = readAt(kit, path);
  return typeof written === "string" ? (parseFrames(written, kit.rate, rounding) ?? 0) : 0;
}

/** Returns the last press of a control's row within a range of frames. */
function lastPress(model: TapeModel, control: string, from: number, to: number): number {
  const row = model.rows.find(item => item.group === "controls" && item.id === control);
  const press = row?.spanFrom[firstAbove(row.spanFrom, to - 1) - 1] ?? from;
  return Math.max(from, press);
}

function handlesOfPattern(kit: Kit, model: TapeModel, row: TapeRow, at: number): TapeHandle[] {
  const i = kit.patterns.findIndex(pattern => pattern.id === row.id);
  const pattern = kit.patterns[i];
  if (!pattern) return [];
  const isReal = pattern.clock === "real";
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
      const end = { anchor: pressed + extra, ends: extra === 0 ? "reach" : "past", isReal } as const;
      return {
        ...end,
        row: at,
        edge: edgeOfWindow(end, model.clock, frames),
        least: 1,
        path,
        rounding,
        words,
      };
    });
  });
}

/** Returns the handles at which the gates that a performed move opens close again. */
function handlesOfOpenings(
  kit: Kit,
  { clock }: TapeModel,
  row: TapeRow,
  at: number,
  m: number,
): TapeHandle[] {
  const performed = row.markFrame.filter((_, k) => row.markLook[k] === "performed");
  return (kit.moves?.[m]?.opens ?? []).flatMap((_, k) => {
    const path = ["moves", m, "opens", k, "to"];
    const to = framesAt(kit, path, "atMost");
    const least = framesAt(kit, ["moves", m, "opens", k, "from"], "atLeast");
    const isReal = kit.moves?.[m]?.clock === "real";
    return performed.map((frame): TapeHandle => {
      const end = { anchor: frame + 1, ends: "past", isReal } as const;
      const edge = edgeOfWindow(end, clock, to);
      return { ...end, row: at, edge, least, path, rounding: "atMost", words: "open until" };
    });
  });
}

function handlesOfMove(kit: Kit, model: TapeModel, row: TapeRow, at: number): TapeHandle[] {
  const m = kit.moves?.findIndex(move => move.id === row.id) ?? -1;
  if (m < 0) return [];
  const path = ["moves", m, "buffer"];
  const buffer = framesAt(kit, path, "atMost");
  const defer = framesAt(kit, ["moves", m, "defer"], "atLeast");
  const move = kit.moves![m]!;
  const isReal = (move.memory ?? move.clock) === "real";
  const memories = row.markMade.map((made): TapeHandle => {
    const due = edgeOfWindow({ anchor: made, ends: "reach", isReal }, model.clock, defer);
    const end = { anchor: due + 1, ends: "after", isReal } as const;
    const edge = edgeOfWindow(end, model.clock, buffer);
    return { ...end, row: at, edge, least: 0, path, rounding: "atMost", words: "buffer" };
  });
  return [...memories, ...handlesOfOpenings(kit, model, row, at, m)];
}

function handlesOfGate(kit: Kit, { clock, frames }: TapeModel, row: TapeRow, at: number): TapeHandle[] {
  const needs = (kit.moves ?? []).flatMap((move, m) =>
    (move.needs ?? []).flatMap((need, k) =>
      need.gate === row.id && !move.off
        ? [{ path: ["moves", m, "needs", k, "coyote"] as PathStep[], isReal: move.clock === "real" }]
        : [],
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
    const end = { anchor: to, ends: "past", isReal: longest.isReal } as const;
    const edge = edgeOfWindow(end, clock, longest.frames);
    return [{ ...end, row: at, edge, least: 0, path: longest.path, rounding: "atMost", words: "coyote" }];
  });
}

function handlesOfPrompt(kit: Kit, { clock }: TapeModel, row: TapeRow, at: number): TapeHandle[] {
  const p = kit.prompts?.findIndex(prompt => prompt.id === row.id) ?? -1;
  const path = ["prompts", p, "window"];
  const window = framesAt(kit, path, "atMost");
  const isReal = kit.prompts?.[p]?.clock === "real";
  return row.spanFrom.flatMap((from, k): TapeHandle[] => {
    if (row.spanLook[k] !== "window") return [];
    const end = { anchor: from + 1, ends: "past", isReal } as const;
    const edge = edgeOfWindow(end, clock, window);
    return [{ ...end, row: at, edge, least: 0, path, rounding: "atMost", words: "open for" }];
  });
}

/** Returns every handle of a row, positioned by the take's clock; only those near some frames if given. */
export function listHandles(
  kit: Kit,
  model: TapeModel,
  at: number,
  within: { readonly from: number; readonly to: number } = { from: 0, to: Infinity },
): TapeHandle[] {
  const whole = model.rows[at];
  const row = whole && rowWithin(whole, within.from, within.to);
  switch (row?.group) {
    case "patterns":
      return handlesOfPattern(kit, model, row, at);
    case "moves":
      return handlesOfMove(kit, model, row, at);
    case "gates":
      return handlesOfGate(kit, model, row, at);
    case "prompts":
      return handlesOfPrompt(kit, model, row, at);
    default:
      return [];
  }
}
