import { compileRules } from "#stage";
import { escapeHtml } from "../sheet/escapeHtml";
import type { ExportFormat, Handover } from "../kind";
import { slugOf, textFile, type OutFile } from "../outFile";

/** The parts of a playable page that are common to all kits: its script, its styles and its markup. */
export interface PlayerParts {
  readonly script: string;
  readonly style: string;
  readonly body: string;
  /** The notices of the packages in the script, and of the fonts in the styles. */
  readonly notices: string;
  readonly fontNotices: string;
}

/**
 * Returns the CSS rules of a playable page's styles that define its fonts, which are embedded, with their notices.
 */
export function facesOf({ style, fontNotices }: Pick<PlayerParts, "style" | "fontNotices">): string {
  const faces = [...style.matchAll(/@font-face\s*\{[^}]*\}/g)].map(([face]) => face);
  // The rules are put into SVG too, where these letters are markup.
  const notices = fontNotices.replace(/[<>]/g, "").replaceAll("&", "and").replaceAll("*/", "* /");
  return [`/*\n${notices}\n*/`, ...faces].join("\n");
}

/**
 * Returns a kit as one playable HTML file. It works from disk, requests nothing from any host (its own policy
 * forbids it), and saves played input as a takes document. Returns undefined for a kit with faults.
 */
export function makePage(
  { kit, layouts }: Pick<Handover, "kit" | "layouts">,
  { script, style, body, notices, fontNotices }: PlayerParts,
): readonly OutFile[] {
  if (!compileRules(kit).ok) return [];
  // A data script ends at the first "</script", so every "<" of the kit is escaped.
  const played = JSON.stringify({ kit, layouts }).replaceAll("<", "\\u003c");
  const text = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:">
<title>${escapeHtml(kit.name || kit.id)}: play it</title>
<style>${style}</style>
</head>
<body>
${body}
<script type="application/json" id="played">${played}</script>
<script>${script}</script>
</body>
</html>
<!--
${`${notices}\n\n${fontNotices}`.replace(/-(?=-)/g, "- ")}
-->
`;
  return [textFile(`${slugOf(kit.name) || "kit"}.page.html`, text, "text/html")];
}

/** Exports the playable page. */
export const pageFormat: ExportFormat = {
  id: "page",
  word: "Playable page",
  hint: "The kit on its stage in one HTML file: opened from a disk, played by keys, pad or touch. It keeps each round and saves them as one file of takes, which is read in here again.",
  uses: ["parts"],
  commands: [{ as: "page" }],
  packed: {
    folder: "page",
    line: "plays the kit in a browser, from a disk; rounds played there come back as one file of takes",
  },
  files: (handover, { player }) => (player ? makePage(handover, player) : []),
};
