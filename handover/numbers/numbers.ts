import { INERT_CSV } from "../documents/inertText";
import Papa from "papaparse";
import type { Kit } from "#core";
import type { ExportFormat } from "../kind";
import { slugOf, textFile } from "../outFile";
import { formatFollowsCsv, listFollows } from "./cancels";
import { listFigures, type Figure } from "./listFigures";

const COLUMNS = ["list", "id", "rule", "field", "written", "frames", "ms", "rounding"] as const;

/** Formats a kit's numbers as CSV (RFC 4180): a header, then one row per number. */
export function formatCsv(kit: Kit): string {
  return `${Papa.unparse([...listFigures(kit)], { ...INERT_CSV, columns: [...COLUMNS] })}\r\n`;
}

/**
 * Formats a kit's numbers as JSON: `{"format": "moss-tap/numbers", "version": 1, "kit", "name", "rate",
 * "numbers": [row]}`.
 */
export function formatJson(kit: Kit): string {
  // The columns alone: the words of a field are for people, and may change.
  const numbers = listFigures(kit).map(figure =>
    Object.fromEntries(COLUMNS.map(column => [column, figure[column]])),
  );
  return `${JSON.stringify({ format: "moss-tap/numbers", version: 1, kit: kit.id, name: kit.name, rate: kit.rate, numbers }, null, 2)}\n`;
}

/** Returns a valid C name: letters, digits and underscores in capitals; other characters by their code. */
function toMacro(text: string): string {
  return [...text]
    .map(letter =>
      /[A-Za-z0-9]/.test(letter)
        ? letter.toUpperCase()
        : /[-_. :]/.test(letter)
          ? "_"
          : `_U${letter.codePointAt(0)!.toString(16).toUpperCase()}_`,
    )
    .join("");
}

/** Escapes a text for a C comment on one line. */
const toComment = (text: string) =>
  text
    .replace(/[^\x20-\x7e]+/g, "?")
    .replaceAll("*/", "* /")
    .replaceAll("/*", "/ *")
    .replaceAll("??", "? ?");

const isNumber = (written: string) => /^-?\d+(\.\d+)?(e[+-]?\d+)?$/.test(written);

/**
 * Returns the lines of one number: a length in whole frames and in milliseconds, a figure as it is, none for
 * anything else.
 */
function linesOf(prefix: string, { list, id, field, written, frames, ms }: Figure): [string, string][] {
  const name = [prefix, toMacro(list), toMacro(id), toMacro(field)].filter(part => part !== "").join("_");
  if (frames !== null)
    return [
      [`${name}_FRAMES`, String(frames)],
      [`${name}_MS`, (ms ?? 0).toFixed(3)],
    ];
  if (!isNumber(written)) return [];
  return [[name, Number(written) < 0 ? `(${written})` : written]];
}

/**
 * Formats a kit's numbers as a C99 header with an include guard: frames and milliseconds of each length,
 * named by ids, each name once.
 */
export function formatHeader(kit: Kit): string {
  const prefix = `MOSS_${toMacro(kit.id)}`;
  const guard = `${prefix}_NUMBERS_H`;
  const used = new Set([guard]);
  const defines = listFigures(kit).flatMap(figure =>
    linesOf(prefix, figure).map(([name, value]) => {
      let own = name;
      for (let n = 2; used.has(own); n++) own = `${name}_${n}`;
      used.add(own);
      return `#define ${own} ${value} /* ${toComment(`${figure.rule}, ${figure.field}: ${figure.written}`)} */`;
    }),
  );
  return [
    `/* ${toComment(kit.name)}: its numbers at ${kit.rate} frames a second. Made by Moss Tap; do not edit. */`,
    `#ifndef ${guard}`,
    `#define ${guard}`,
    "",
    `#define ${prefix}_RATE_HZ ${kit.rate}`,
    ...defines,
    "",
    `#endif /* ${guard} */`,
    "",
  ].join("\n");
}

/** Exports every length and figure, for spreadsheets, tools and C, and the moves that may follow others. */
export const numbersFormat: ExportFormat = {
  id: "numbers",
  word: "Numbers",
  hint: "Every length and figure with its rule, as written, in frames and in ms: a table, JSON, and a header for C. Beside them, which move may follow which on which frames.",
  uses: [],
  commands: [
    { as: "numbers", isIncluded: name => !name.endsWith(".h") },
    { as: "header", isIncluded: name => name.endsWith(".h") },
  ],
  packed: {
    folder: "numbers",
    line: "every length and figure, as CSV, JSON and a C header, and which move may follow which",
  },
  files({ kit }) {
    const slug = slugOf(kit.name) || "kit";
    const follows = listFollows(kit);
    return [
      textFile(`${slug}.numbers.csv`, formatCsv(kit), "text/csv"),
      textFile(`${slug}.numbers.json`, formatJson(kit), "application/json"),
      textFile(`${slug}.numbers.h`, formatHeader(kit), "text/x-c"),
      ...(follows.length > 0 ? [textFile(`${slug}.cancels.csv`, formatFollowsCsv(follows), "text/csv")] : []),
    ];
  },
};
