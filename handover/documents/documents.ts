import { DOCUMENTS_FOLDER } from "../pack/documentsFolder";
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

/** A document that can be exported and imported. */
export type FileDocument = Kit | Take | Layout | Checks | Assists;

/** Returns whether a value is written on one line: a list of numbers and words. */
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

/**
 * Formats a document as file text: indented, with pairs of lanes and codes of bindings on one line each.
 * Formats from the values, without editing text.
 */
export function formatFile(document: FileDocument): string {
  return `${write(document, "")}\n`;
}

/** Returns a file name for a document, made of its own name. */
export function fileNameOf(document: FileDocument): string {
  const kind = document.format.replace("moss-tap/", "");
  return `${slugOf(document.name) || kind}.${kind}.json`;
}

/** Returns a document as a file. */
export function fileOf(document: FileDocument): OutFile {
  return textFile(fileNameOf(document), formatFile(document), "application/json");
}

/** Returns the checks of a kit as one document; an empty list without checks. */
export function checksOf(kit: Kit, checks: readonly Check[]): Checks[] {
  return checks.length === 0 ? [] : [checksDocument(`${kit.id}-checks`, kit.name, kit.id, checks)];
}

/** Returns the assists of a kit as a document for another kit; an empty list without assists. */
function assistsOf({ id, name, assists }: Kit): Assists[] {
  return assists?.length
    ? [assistsDocument({ id: `${id.slice(0, 90)}-assists`, name, kit: id }, assists)]
    : [];
}

/** Exports every document as a file of its own. */
export const documentsFormat: ExportFormat = {
  id: "documents",
  word: "Documents",
  hint: "Plain JSON, described in docs/file-formats.md. Drop a file on the shelf to read it in again.",
  uses: [],
  commands: [{ as: "documents" }],
  packed: {
    folder: DOCUMENTS_FOLDER,
    line: "the kit, its takes, layouts and checks. They come back in: drop this whole file on the shelf",
    files: ({ kit, takes, layouts, checks }) =>
      [kit, ...takes, ...layouts, ...checksOf(kit, checks)].map(fileOf),
  },
  files: ({ kit, takes, layouts, checks }) =>
    [kit, ...takes, ...layouts, ...checksOf(kit, checks), ...assistsOf(kit)].map(fileOf),
};
