import Papa from "papaparse";
import type { TableFeed } from "./readTable";

/** So much of a file is looked at to see what it is. Letters. */
const GLANCE = 64 * 1024;

/** The first rows of a table as cells, its head first: what stands in the beginning of its text. Empty lines are left out. */
export function glanceAtTable(text: string, rows: number): readonly (readonly string[])[] {
  const glance = text.slice(0, GLANCE);
  const { data } = Papa.parse<string[]>(glance, { preview: rows + 1, skipEmptyLines: "greedy" });
  // The last row of a glance may be cut in the middle.
  return text.length > GLANCE && data.length < rows + 1 ? data.slice(0, -1) : data;
}

/**
 * Reads CSV (RFC 4180; commas, tabs or semicolons, as it finds) piece by piece into a feed: in memory is never more than a
 * piece. `rest` is waited for after each piece, and hears how many letters were read. Rejects when the source does not read
 * or `rest` rejects.
 */
export function parseTable(
  source: File | NodeJS.ReadableStream,
  feed: TableFeed,
  rest?: (read: number) => Promise<void>,
): Promise<void> {
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(source as File, {
      chunk({ data, meta }, parser) {
        if (!feed.rows(data)) return parser.abort();
        if (!rest) return;
        parser.pause();
        rest(meta.cursor).then(
          () => parser.resume(),
          (error: unknown) => {
            // Before it is aborted: that ends the table as if it were whole.
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
