import { BOUNDS, type Mapping } from "#core";
import { readNumber, readSignedCell } from "./createRecording";
import { readClock } from "./readClock";

/** The separators between the words of one cell: "A+B", "left|jump". */
const BETWEEN = /[+|,;]/;

/** The number of different words up to which a column is one of words; more are names, remarks or random texts. */
const MAX_WORDS = 40;

/** Returns the words of a cell, in order. */
export const listWords = (cell: string): readonly string[] =>
  cell
    .split(BETWEEN)
    .map(word => word.trim())
    .filter(word => word !== "");

/** Returns the name of the source that a word in a column is. */
export const wordSource = (column: string, word: string) => `${column}: ${word}`;

/** A source of a table of frames: a column, or a word in a column of words. */
export interface CellSource {
  readonly column: string;
  readonly word?: string;
}

/** Returns where a source is found: in a column of words if it is named like one of its words, otherwise in the column of its name. */
export function placeSource(source: string, words: Mapping["words"] = {}): CellSource {
  const column = Object.keys(words).find(name => source.startsWith(wordSource(name, "")));
  return column === undefined
    ? { column: source }
    : { column, word: source.slice(wordSource(column, "").length) };
}

/** Returns whether a cell holds a word that is no value: neither a number, a time, nor a word for down or up. */
const isWord = (cell: string) =>
  readSignedCell(cell) === undefined && Number.isNaN(readNumber(cell)) && readClock(cell) === undefined;

/**
 * Returns the columns of a table whose cells hold words, with these in the order in which its rows have them: as far as its rows
 * show, at most 40 different ones, and none that is too long for a name.
 */
export function findWords(
  head: readonly string[],
  rows: readonly (readonly string[])[],
): NonNullable<Mapping["words"]> {
  const found = head.flatMap((name, at): [string, string[]][] => {
    const cells = [...new Set(rows.map(row => (row[at] ?? "").trim()))].filter(cell => cell !== "");
    // Words for down and up may be among others, as in "down, held, up, locked"; numbers may not.
    const isWhole = cells.every(cell => Number.isNaN(readNumber(cell)) && readClock(cell) === undefined);
    const words = [...new Set(cells.flatMap(listWords))];
    const isShort = words.every(word => wordSource(name, word).length <= BOUNDS.nameLetters);
    const isList = isShort && words.length <= MAX_WORDS;
    return name !== "" && isWhole && cells.some(isWord) && isList ? [[name, words]] : [];
  });
  return Object.fromEntries(found);
}
