import {
  FILE_LIMIT_BYTES,
  formatIssue,
  parseJson,
  parseLayout,
  parseTake,
  type Issue,
  type Kit,
  type Layout,
  type Result,
  type Take,
} from "#core";
import { parseRules } from "#stage";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";

const MEGABYTE = 1024 * 1024;
/** The most that the files of one pack may hold together. */
const PACK_LIMIT_BYTES = 256 * MEGABYTE;

/** A document as it leaves and comes back. */
export type FileDocument = Kit | Take | Layout;

/** What came out of a file: a kit, a take, a layout of keys, or the sentences that say why none of them. */
export type ReadFile =
  | { readonly kind: "kit"; readonly name: string; readonly kit: Kit }
  | { readonly kind: "take"; readonly name: string; readonly take: Take }
  | { readonly kind: "layout"; readonly name: string; readonly layout: Layout }
  | { readonly kind: "refused"; readonly name: string; readonly reasons: readonly string[] };

function refuse(name: string, issues: readonly Issue[]): ReadFile {
  return { kind: "refused", name, reasons: issues.map(formatIssue) };
}

type Reader = (name: string, json: unknown) => ReadFile;

function reader<T>(parse: (json: unknown) => Result<T>, wrap: (name: string, value: T) => ReadFile): Reader {
  return (name, json) => {
    const read = parse(json);
    return read.ok ? wrap(name, read.value) : refuse(name, read.issues);
  };
}

/** How each format is read; what names no format known here is read as a kit, which says so. */
const READERS: Readonly<Record<string, Reader>> = {
  "moss-tap/kit": reader(parseRules, (name, { kit }) => ({ kind: "kit", name, kit })),
  "moss-tap/take": reader(parseTake, (name, take) => ({ kind: "take", name, take })),
  "moss-tap/layout": reader(parseLayout, (name, layout) => ({ kind: "layout", name, layout })),
};

/** Reads the text of a kit, take or layout file; the format field tells which it is. */
export function readSource(name: string, source: string): ReadFile {
  const json = parseJson(source);
  if (!json.ok) return refuse(name, json.issues);
  const format = String((json.value as { format?: unknown } | null)?.format);
  const read = Object.hasOwn(READERS, format) ? READERS[format]! : READERS["moss-tap/kit"]!;
  return read(name, json.value);
}

function tooLarge(name: string, bytes: number): ReadFile {
  const facts = { megabytes: Math.ceil(bytes / MEGABYTE), limit: FILE_LIMIT_BYTES / MEGABYTE };
  return refuse(name, [{ code: "too-large", severity: "fault", path: [], facts }]);
}

/** The files packed in one; each is held to the limit of a file, all together to that of a pack, before anything is unpacked. */
function readPacked(name: string, packed: Uint8Array): ReadFile[] {
  const refused: ReadFile[] = [];
  let total = 0;
  try {
    const files = unzipSync(packed, {
      filter(entry) {
        if (entry.name.endsWith("/")) return false;
        total += entry.originalSize;
        const isFine = entry.originalSize <= FILE_LIMIT_BYTES && total <= PACK_LIMIT_BYTES;
        if (!isFine) refused.push(tooLarge(entry.name, entry.originalSize));
        return isFine;
      },
    });
    const read = Object.entries(files).map(([inside, bytes]) => readSource(inside, strFromU8(bytes)));
    return [...read, ...refused];
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return [
      { kind: "refused", name, reasons: [`the file: it cannot be unpacked (${detail}): save it again`] },
    ];
  }
}

/** Reads a file a user chose or dropped: a document, or a pack of them. One that is too large is refused unread. */
export async function readFile(file: File): Promise<ReadFile[]> {
  const isPacked = /\.zip$/i.test(file.name);
  if (file.size > (isPacked ? PACK_LIMIT_BYTES : FILE_LIMIT_BYTES)) return [tooLarge(file.name, file.size)];
  if (isPacked) return readPacked(file.name, new Uint8Array(await file.arrayBuffer()));
  return [readSource(file.name, await file.text())];
}

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

/** A name a file system takes, made of a document's name. */
export function fileNameOf(document: FileDocument): string {
  const kind = document.format.replace("moss-tap/", "");
  return `${slugOf(document.name) || kind}.${kind}.json`;
}

function slugOf(name: string): string {
  return name
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase()
    .slice(0, 80);
}

/** A file in hand: its name and what is in it. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly type: string;
}

/** A document as a file. */
export function fileOf(document: FileDocument): OutFile {
  return {
    name: fileNameOf(document),
    bytes: strToU8(formatFile(document)) as Uint8Array<ArrayBuffer>,
    type: "application/json",
  };
}

/** Several documents as one packed file named after the first; two of one name get a number. */
export function packFiles(documents: readonly FileDocument[]): OutFile {
  const packed: Record<string, Uint8Array> = {};
  for (const document of documents) {
    const { name, bytes } = fileOf(document);
    let free = name;
    for (let n = 2; Object.hasOwn(packed, free); n++) free = name.replace(/(\.\w+\.json)$/, `-${n}$1`);
    packed[free] = bytes;
  }
  const name = `${slugOf(documents[0]?.name ?? "") || "moss-tap"}.zip`;
  return { name, bytes: zipSync(packed) as Uint8Array<ArrayBuffer>, type: "application/zip" };
}

/** Anything as a file of JSON, as it is: for what was kept and does not read. */
export function fileOfRaw(name: string, raw: unknown): OutFile {
  const text = `${JSON.stringify(raw, null, 2) ?? "null"}\n`;
  const bytes = strToU8(text) as Uint8Array<ArrayBuffer>;
  return { name: `${slugOf(name) || "moss-tap"}.json`, bytes, type: "application/json" };
}

/** Hands a file to the user. */
export function download(file: OutFile): void {
  const url = URL.createObjectURL(new Blob([file.bytes], { type: file.type }));
  const link = Object.assign(window.document.createElement("a"), { href: url, download: file.name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
