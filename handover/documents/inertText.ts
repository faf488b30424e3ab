/** Options of CSV for files that spreadsheets open: text that would run as a formula gets an apostrophe. */
export const INERT_CSV = { escapeFormulae: true } as const;

/** Returns a name as plain text of Markdown, in one line: nothing in it is markup, a link or HTML. */
export function toMarkdownText(name: string): string {
  return name
    .replace(/\s+/g, " ")
    .replace(/[\\`*_{}[\]()#+!|~>]/g, letter => `\\${letter}`)
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;");
}
