/** Formats a table from cells that are HTML already. `numbers` lists the indices of numeric columns. */
export function table(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  numbers: ReadonlySet<number> = new Set(),
): string {
  const look = (k: number) => (numbers.has(k) ? ' class="n"' : "");
  const line = (cells: readonly string[], tag: "th" | "td") =>
    `<tr>${cells.map((cell, k) => `<${tag}${look(k)}>${cell}</${tag}>`).join("")}</tr>`;
  return `<table><thead>${line(head, "th")}</thead><tbody>${rows.map(row => line(row, "td")).join("\n")}</tbody></table>`;
}
