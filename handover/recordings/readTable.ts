import { fault, type Issue, type Mapping, type Result } from "#core";
import {
  createRecording,
  finestOf,
  readCell,
  readGateCell,
  readSignedCell,
  readNumber,
  readSpeedCell,
  toFrames,
  type NamedTake,
  type ReadRecording,
} from "./createRecording";
import { listWords, placeSource, wordSource } from "./cellWords";
import { readClock } from "./readClock";
import { searchHead } from "./tableHead";

/** Reads a table row by row, after its header. */
export interface TableReader {
  /** Reads a row of cells; `line` is its line number. */
  readonly row: (cells: readonly string[], line: number) => void;
  /** Returns whether the take has reached its maximum size. */
  readonly isFull: () => boolean;
  readonly finish: (named: NamedTake) => Result<ReadRecording>;
}

/** Returns the sources that a mapping knows. */
export const listMapped = ({ controls, below, gates, performs, speed }: Mapping): readonly string[] =>
  Object.keys({ ...controls, ...below, ...gates, ...performs, ...speed });

/** How the cells of a source are read, and what to write in place of one that is no value. */
interface Reading {
  readonly read: (cell: string) => number | undefined;
  readonly cure: string;
}

const PLAIN: Reading = { read: readCell, cure: "write 0 to 1, down or up" };

const SPEED_CURES = {
  times: "write 0 to 4, 1 for full speed",
  percent: "write 0 to 400",
  stops: "write 0 or 1",
};

/** Returns the readings of sources with values below 0, and of those that play no control: they open a gate, show a move, or give the speed. */
function readingsOf({
  controls,
  below = {},
  gates = {},
  performs = {},
  speed = {},
}: Mapping): ReadonlyMap<string, Reading> {
  const readings = new Map<string, Reading>();
  for (const source of Object.keys({ ...gates, ...performs }))
    if (!Object.hasOwn(controls, source)) readings.set(source, { read: readGateCell, cure: "write 0 or 1" });
  for (const source of Object.keys(below))
    readings.set(source, { read: readSignedCell, cure: "write −1 to 1" });
  for (const [source, unit] of Object.entries(speed))
    readings.set(source, { read: readSpeedCell(unit), cure: SPEED_CURES[unit] });
  return readings;
}

/** Returns the columns of a table of frames in which a mapping's sources are found. */
export const columnsOf = (mapping: Mapping): readonly string[] => [
  ...new Set(listMapped(mapping).map(source => placeSource(source, mapping.words).column)),
];

/** Finds a mapping's columns in a header; a missing column is a fault that lists the existing ones. */
function findColumns(
  mapping: Mapping,
  head: readonly string[],
): Result<(name: string | undefined) => number> {
  const places = new Map(head.map((name, k) => [name.trim(), k]));
  const wanted = [
    ...(mapping.sort === "changes" ? [mapping.time, mapping.control, mapping.value] : []),
    ...(mapping.sort === "frames" && mapping.time !== undefined ? [mapping.time] : []),
    ...(mapping.sort === "frames" ? columnsOf(mapping) : []),
  ];
  const issues = wanted.flatMap((name): Issue[] => {
    if (name !== undefined && places.has(name)) return [];
    const hint = `write one of ${[...places.keys()].slice(0, 40).join(", ")}`;
    return [fault("unknown-id", ["head"], { what: "column", id: name ?? "", hint })];
  });
  if (issues.length > 0) return { ok: false, issues };
  return { ok: true, value: name => places.get(name ?? "") ?? -1, warnings: [] };
}

/**
 * Starts reading a table through a mapping: rows of changes (time, control, value) or of frames (a column per
 * control, with a time column if mapped, otherwise one frame per row). Invalid cells, times that are missing
 * or decrease, and controls the mapping does not know are skipped and reported with their lines.
 */
export function beginTable(mapping: Mapping, head: readonly string[]): Result<TableReader> {
  const columns = findColumns(mapping, head);
  if (!columns.ok) return columns;
  const { sort, unit = "frames", rate, start = "zero" } = mapping;
  const recording = createRecording(mapping);
  const timeAt = columns.value(mapping.time);
  const controlAt = columns.value(mapping.control);
  const valueAt = columns.value(mapping.value);
  const played = listMapped(mapping).map(name => {
    const { column, word } = placeSource(name, mapping.words);
    return { name, at: columns.value(column), word };
  });
  const readingOf = readingsOf(mapping);
  let rows = 0;
  let first = start === "zero" ? 0 : undefined;
  const timeOf = (cells: readonly string[], line: number): number | undefined => {
    if (timeAt < 0) return rows;
    const written = (cells[timeAt] ?? "").trim();
    const number = readNumber(written);
    const clock = Number.isNaN(number) ? readClock(written) : undefined;
    const time = clock?.seconds ?? number;
    if (Number.isFinite(time)) {
      first ??= time;
      const finest = clock?.finest ?? finestOf(written);
      // The time of the first row was rounded or cut, too.
      const late = first === 0 ? finest / 2 : finest;
      return toFrames(time - first, clock ? "s" : unit, rate, finest, late);
    }
    recording.note(`line ${line}: “${written}” is no time`);
    return undefined;
  };
  /** Returns the end of a take of frames, one after that of its last row; undefined for one of changes, which names no end. */
  const endOf = () => {
    if (sort === "changes") return undefined;
    return timeAt < 0 ? rows : Math.ceil(recording.last()) + 1;
  };
  const known = new Map(
    Object.entries(mapping.words ?? {}).map(([column, words]) => [column, new Set(words)] as const),
  );
  /** Reports the words of a row that the mapping does not know, if it maps any of their column. */
  const wordColumns = [...known].flatMap(([column, words]) => {
    const isUsed = played.some(own => own.word !== undefined && own.at === columns.value(column));
    return isUsed ? [{ column, words, at: columns.value(column), last: "" }] : [];
  });
  const meetWords = (x: number, cells: readonly string[], line: number) => {
    for (const own of wordColumns) {
      const cell = cells[own.at] ?? "";
      if (cell === own.last) continue;
      own.last = cell;
      for (const word of listWords(cell))
        if (!own.words.has(word)) recording.set(wordSource(own.column, word), x, 1, () => `line ${line}`);
    }
  };
  /** Sets the value of a source by a row; a word has the value 1 if its cell has it. */
  const putCell = (
    { name, at, word }: (typeof played)[number],
    x: number,
    cells: readonly string[],
    line: number,
  ) => {
    const cell = cells[at] ?? "";
    if (word === undefined) put(name, x, cell, line);
    else recording.set(name, x, listWords(cell).includes(word) ? 1 : 0, () => `line ${line}`);
  };
  const put = (source: string, x: number, cell: string, line: number) => {
    const { read, cure } = readingOf.get(source) ?? PLAIN;
    const value = read(cell);
    if (value === undefined) {
      const why = read === readCell && readSignedCell(cell) !== undefined ? ", or map what is below 0" : "";
      recording.note(`line ${line}: “${cell}” is no value of ${source}: ${cure}${why}`);
    } else recording.set(source, x, value, () => `line ${line}`);
  };
  return {
    ok: true,
    warnings: [],
    value: {
      row(cells, line) {
        const x = timeOf(cells, line);
        rows++;
        if (x === undefined) return;
        if (sort === "changes") put((cells[controlAt] ?? "").trim(), x, cells[valueAt] ?? "", line);
        else {
          for (const own of played) putCell(own, x, cells, line);
          meetWords(x, cells, line);
        }
      },
      isFull: recording.isFull,
      finish: named => recording.finish(named, endOf()),
    },
  };
}

/** Receives a table in chunks from a CSV parser, the header first. */
export interface TableFeed {
  /**
   * Receives the next rows. Returns false to stop: the header does not match the mapping, or the take is
   * full.
   */
  readonly rows: (rows: readonly (readonly string[])[]) => boolean;
  readonly finish: (named: NamedTake) => Result<ReadRecording>;
}

/** Returns whether a row is an empty line. */
const isEmpty = (row: readonly string[]) => row.length === 0 || (row.length === 1 && row[0]!.trim() === "");

/** Returns the number of lines a row spans, including line breaks in its cells. */
function linesOf(row: readonly string[]): number {
  let lines = 1;
  for (const cell of row) if (cell.includes("\n")) lines += cell.split("\n").length - 1;
  return lines;
}

/** Creates a feed that reads a table through a mapping; empty lines, and remarks before the header, are skipped but counted. */
export function feedTable(mapping: Mapping): TableFeed {
  let reader: Result<TableReader> | undefined;
  let line = 1;
  const search = searchHead();
  const begin = (row: readonly string[], at: number) => {
    const found = search.next(row);
    if (!found) return;
    reader = beginTable(mapping, found.head);
    if (found.isRow && reader.ok) reader.value.row(row, at);
  };
  return {
    rows(rows) {
      for (const row of rows) {
        const at = line;
        line += linesOf(row);
        if (isEmpty(row)) continue;
        if (!reader) begin(row, at);
        else if (reader.ok) reader.value.row(row, at);
        if (reader && (!reader.ok || reader.value.isFull())) return false;
      }
      return true;
    },
    finish(named) {
      if (!reader) return { ok: false, issues: [fault("empty", [], {})] };
      return reader.ok ? reader.value.finish(named) : reader;
    },
  };
}
