import {
  assistsDocument,
  checksDocument,
  type Assists,
  type Check,
  type Checks,
  type Kit,
  type Layout,
  type Take,
} from "#core";
import type { ExportFormat } from "../kind";
import { slugOf, textFile, type OutFile } from "../outFile";

/** A document as it leaves and comes back. */
export type FileDocument = Kit | Take | Layout | Checks | Assists;

/** Does a value stand on one line: a list of numbers and words? */
function isFlat(value: unknown): value is readonly (string | number)[] {
  return Array.isArray(value) && value.every(item => typeof item === "number" || typeof item === "string");
}

function write(value: unknown, indent: string): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value);
  if (isFlat(value)) return `[${value.map(item => JSON.stringify(item)).join(", ")}]`;
  const deeper = `${indent}  `;
  const isList = Array.isArray(value);
  const items = isList
    ? value.map(item => write(item, deeper))
    : Object.entries(value).flatMap(([key, item]) =>
        item === undefined ? [] : [`${JSON.stringify(key)}: ${write(item, deeper)}`],
      );
  const [open, close] = isList ? ["[", "]"] : ["{", "}"];
  return items.length === 0
    ? open + close
    : `${open}\n${deeper}${items.join(`,\n${deeper}`)}\n${indent}${close}`;
}

/** A document as the text of its file: indented, pairs of lanes and codes of bindings on one line each. Values are written, never the text mended. */
export function formatFile(document: FileDocument): string {
  return `${write(document, "")}\n`;
}

/** A name for a document's file, made of its own. */
export function fileNameOf(document: FileDocument): string {
  const kind = document.format.replace("moss-tap/", "");
  return `${slugOf(document.name) || kind}.${kind}.json`;
}

/** A document as a file. */
export function fileOf(document: FileDocument): OutFile {
  return textFile(fileNameOf(document), formatFile(document), "application/json");
}

/** The checks of a kit as one document; none where there are none. */
export function checksOf(kit: Kit, checks: readonly Check[]): Checks[] {
  return checks.length === 0 ? [] : [checksDocument(`${kit.id}-checks`, kit.name, kit.id, checks)];
}

/** The assists of a kit as a document of their own, for another kit; none where it has none. */
function assistsOf({ id, name, assists }: Kit): Assists[] {
  return assists?.length
    ? [assistsDocument({ id: `${id.slice(0, 90)}-assists`, name, kit: id }, assists)]
    : [];
}

/** Everything as it is kept, document by document. */
export const documentsFormat: ExportFormat = {
  id: "documents",
  word: "Documents",
  hint: "Plain JSON, as docs/file-formats.md tells. Drop a file on the shelf to read it in again.",
  files: ({ kit, takes, layouts, checks }) =>
    [kit, ...takes, ...layouts, ...checksOf(kit, checks), ...assistsOf(kit)].map(fileOf),
};
