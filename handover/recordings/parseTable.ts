import Papa from "papaparse";
import { decodeText, encodingOf } from "../reading/decodeText";
import type { TableFeed } from "./readTable";
import { separatorOf } from "./separatorLine";
import { searchHead } from "./tableHead";

/** The number of characters of a file that are read to recognise it. */
const GLANCE = 64 * 1024;

/** The number of lines before the header of a table that are looked at. */
const MAX_REMARKS = 200;

/** The number of bytes at the beginning of a table that show its encoding and its separator. */
export const TABLE_HEAD_BYTES = 32;

/**
 * Returns the first rows of a table as cells, the header first, from the beginning of its text. Skips empty
 * lines, and remarks before the header.
 */
export function glanceAtTable(text: string, rows: number): readonly (readonly string[])[] {
  const glance = text.slice(0, GLANCE);
  const delimiter = separatorOf(glance);
  const { data } = Papa.parse<string[]>(glance, {
    preview: rows + MAX_REMARKS,
    delimiter,
    skipEmptyLines: "greedy",
  });
  // The last row of a preview may be truncated.
  if (text.length > GLANCE && data.length < rows + MAX_REMARKS) data.pop();
  const { next } = searchHead();
  for (const [k, row] of data.entries()) {
    const found = next(row);
    if (found) return [found.head, ...data.slice(found.isRow ? k : k + 1, (found.isRow ? k : k + 1) + rows)];
  }
  return [];
}

/**
 * Parses CSV (RFC 4180; commas, tabs or semicolons, detected or named in a first line "sep=;") chunk by chunk into a feed; never
 * holds more than a chunk in memory. `head`: its first TABLE_HEAD_BYTES bytes; a stream yields text, and a file is decoded by them.
 * Awaits `pause` after each chunk with the number of characters read so far. Rejects if the source cannot be read or `pause` rejects.
 */
export function parseTable(
  source: File | NodeJS.ReadableStream,
  head: Uint8Array,
  feed: TableFeed,
  pause?: (read: number) => Promise<void>,
): Promise<void> {
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(source as File, {
      encoding: encodingOf(head),
      delimiter: separatorOf(decodeText(head)),
      chunk({ data, meta }, parser) {
        if (!feed.rows(data)) return parser.abort();
        if (!pause) return;
        parser.pause();
        pause(meta.cursor).then(
          () => parser.resume(),
          (error: unknown) => {
            // Reject before aborting, because aborting completes the table as if it were whole.
            reject(error instanceof Error ? error : new Error(String(error)));
            parser.abort();
          },
        );
      },
      complete: () => resolve(),
      error: reject,
    });
  });
}
