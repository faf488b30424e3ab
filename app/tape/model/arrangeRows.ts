import type { KitSettings } from "../../storage/records";
import { isPaintable } from "./stroke";
import { createRow, keyOfRow, type MarkLook, type TapeGroup, type TapeModel, type TapeRow } from "./tapeRows";

export const GROUP_WORDS: Readonly<Record<TapeGroup, string>> = {
  time: "Time",
  controls: "Controls",
  gates: "Gates",
  patterns: "Patterns",
  moves: "Moves",
  stage: "The stage",
  game: "The game",
  prompts: "Prompts",
};

/** The look of the stretches that a folded group still shows. */
const FOLDED_LOOK = { controls: "down", gates: "open", prompts: "window" } as const;

interface Mark {
  readonly frame: number;
  readonly look: MarkLook;
  readonly note: number;
}

/** Returns one row for a folded group: where anything is down, open or shown, and every mark. */
function foldGroup(group: TapeGroup, rows: readonly TapeRow[]): TapeRow {
  const folded = createRow(
    group,
    { id: "", name: `${GROUP_WORDS[group]}, ${rows.length} folded` },
    undefined,
    rows.length,
  );
  const look =
    group === "controls" || group === "gates" || group === "prompts" ? FOLDED_LOOK[group] : undefined;
  const spans = rows
    .flatMap(row => row.spanFrom.map((from, k) => ({ from, to: row.spanTo[k]!, look: row.spanLook[k]! })))
    .filter(span => span.look === look)
    .sort((a, b) => a.from - b.from);
  for (const span of spans) {
    const last = folded.spanTo.length - 1;
    if (last >= 0 && span.from <= folded.spanTo[last]!)
      folded.spanTo[last] = Math.max(folded.spanTo[last]!, span.to);
    else {
      folded.spanFrom.push(span.from);
      folded.spanTo.push(span.to);
      folded.spanLook.push(span.look);
      folded.spanText.push("");
    }
  }
  const marks = rows
    .flatMap(row =>
      row.markFrame.map((frame, k): Mark => ({ frame, look: row.markLook[k]!, note: row.markNote[k]! })),
    )
    .sort((a, b) => a.frame - b.frame);
  for (const mark of marks) {
    folded.markFrame.push(mark.frame);
    folded.markLook.push(mark.look);
    folded.markNote.push(mark.note);
    folded.markMade.push(-1);
    folded.markText.push("");
  }
  return folded;
}

function sortRows(rows: readonly TapeRow[], order: readonly string[]): TapeRow[] {
  const placeOf = (row: TapeRow) => {
    const place = order.indexOf(keyOfRow(row));
    return place < 0 ? order.length : place;
  };
  return [...rows].sort((a, b) => placeOf(a) - placeOf(b));
}

/** The selection of rows to show. */
export interface RowsWanted {
  /** Part of a name: only rows that contain it, folded or not. */
  readonly word?: string;
  /** While painting, every paintable lane is shown, including the speed. */
  readonly isPainting?: boolean;
  /** Only rows with these keys. */
  readonly only?: ReadonlySet<string> | undefined;
}

/** Returns whether a row has any content. */
export function isStirring(row: TapeRow): boolean {
  return row.spanFrom.length > 0 || row.waitFrom.length > 0 || row.markFrame.length > 0;
}

/**
 * Returns the keys of the rows with any content; undefined if there are none, so that the rows of an empty
 * take are shown.
 */
export function listStirring({ rows }: TapeModel): ReadonlySet<string> | undefined {
  const stirring = rows.filter(isStirring);
  return stirring.length > 0 ? new Set(stirring.map(keyOfRow)) : undefined;
}

/**
 * Returns the rows to show: in the user's order, groups folded, filtered, the speed only if the take has one.
 */
export function arrangeRows(
  model: TapeModel,
  { folded, order }: KitSettings,
  { word = "", isPainting = false, only }: RowsWanted = {},
): TapeModel {
  const part = word.trim().toLowerCase();
  const groups = [...new Set(model.rows.map(row => row.group))];
  const isWanted = (row: TapeRow) =>
    only === undefined || (isPainting && isPaintable(row)) || only.has(keyOfRow(row));
  const rows = groups.flatMap(group => {
    const all = sortRows(
      model.rows.filter(row => row.group === group),
      order,
    );
    if (part !== "") return all.filter(row => row.name.toLowerCase().includes(part));
    if (group === "time") return all.filter(row => isPainting || isStirring(row));
    const own = all.filter(row => isWanted(row) && (group !== "game" || isStirring(row)));
    return folded.includes(group) && own.length > 0 ? [foldGroup(group, own)] : own;
  });
  return { ...model, rows };
}

/** Returns settings with a group folded, or unfolded if it was. */
export function foldRows(rows: KitSettings, group: TapeGroup): KitSettings {
  const folded = rows.folded.includes(group)
    ? rows.folded.filter(item => item !== group)
    : [...rows.folded, group];
  return { ...rows, folded };
}

/**
 * Returns settings with a row moved past its neighbour among the shown rows; unchanged if the neighbour is of
 * another group. Hidden rows of the group keep their places.
 */
export function moveRow(
  rows: KitSettings,
  whole: readonly TapeRow[],
  shown: readonly TapeRow[],
  at: number,
  by: 1 | -1,
): KitSettings {
  const row = shown[at];
  const other = shown[at + by];
  if (!row || !other || row.group !== other.group || row.folded > 0) return rows;
  const all = whole.filter(item => item.group === row.group);
  const own = sortRows(all, rows.order).map(keyOfRow);
  own.splice(own.indexOf(keyOfRow(row)), 1);
  own.splice(own.indexOf(keyOfRow(other)) + (by > 0 ? 1 : 0), 0, keyOfRow(row));
  return { ...rows, order: [...rows.order.filter(key => !own.includes(key)), ...own] };
}
