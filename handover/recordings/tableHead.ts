import { readNumber } from "./createRecording";
import { readClock } from "./readClock";
import { isSeparatorLine } from "./separatorLine";

/** Finds the header of a table among its first rows. */
export interface HeadSearch {
  /** Receives the next row; returns the header once it is known, and whether that row is the first one of values instead. */
  readonly next: (
    row: readonly string[],
  ) => { readonly head: readonly string[]; readonly isRow: boolean } | undefined;
}

const isRemark = (row: readonly string[]) => (row[0] ?? "").trimStart().startsWith("#");
const isValue = (cell: string) => !Number.isNaN(readNumber(cell)) || readClock(cell) !== undefined;

/**
 * Starts the search for a header: the first row that is neither empty, a line "sep=;", nor a remark, a line that begins with "#".
 * If that row begins with a number or a time, and the remark before it has as many cells, the remark is the header: "# frame,leap".
 */
export function searchHead(): HeadSearch {
  let remark: readonly string[] = [];
  return {
    next(row) {
      if (row.every(cell => cell.trim() === "") || isSeparatorLine(row)) return undefined;
      if (isRemark(row)) {
        remark = row;
        return undefined;
      }
      const [first = ""] = row;
      if (remark.length !== row.length || !isValue(first.trim())) return { head: row, isRow: false };
      const name = remark[0]!.replace(/^\s*#+\s*/, "");
      return { head: [name || "#", ...remark.slice(1)], isRow: true };
    },
  };
}
