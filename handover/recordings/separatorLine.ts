const SEPARATOR_LINE = /^sep=(.)?$/i;

/** Returns the separator that a text names in a first line "sep=;", as some spreadsheets write before the header; "" without one. */
export function separatorOf(text: string): string {
  const [line = ""] = text.split(/\r?\n|\r/, 1);
  return SEPARATOR_LINE.exec(line)?.[1] ?? "";
}

/** Returns whether a row of a table is that line, which its separator has divided. */
export const isSeparatorLine = (row: readonly string[]): boolean => SEPARATOR_LINE.test(row[0] ?? "");
