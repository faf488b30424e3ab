import { strFromU8, unzipSync } from "fflate";
import {
  FILE_LIMIT_BYTES,
  formatIssue,
  parseJson,
  parseChecks,
  parseLayout,
  parseTake,
  type Checks,
  type Issue,
  type Kit,
  type Layout,
  type Result,
  type Take,
} from "#core";
import { parseRules } from "#stage";

const MEGABYTE = 1024 * 1024;
/** The most that the files of one pack may hold together. */
const PACK_LIMIT_BYTES = 256 * MEGABYTE;

/** What came out of a file: a kit, a take, a layout of keys, or the sentences that say why none of them. */
export type ReadFile =
  | { readonly kind: "kit"; readonly name: string; readonly kit: Kit }
  | { readonly kind: "take"; readonly name: string; readonly take: Take }
  | { readonly kind: "layout"; readonly name: string; readonly layout: Layout }
  | { readonly kind: "checks"; readonly name: string; readonly checks: Checks }
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
  "moss-tap/checks": reader(parseChecks, (name, checks) => ({ kind: "checks", name, checks })),
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

/** Is a file of so many bytes too large to be read? Then the refusal; it need not be opened for that. */
export function refuseTooLarge(name: string, bytes: number): ReadFile | undefined {
  return bytes > (isPack(name) ? PACK_LIMIT_BYTES : FILE_LIMIT_BYTES) ? tooLarge(name, bytes) : undefined;
}

function isPack(name: string): boolean {
  return /\.zip$/i.test(name);
}

function tooLarge(name: string, bytes: number): ReadFile {
  const facts = { megabytes: Math.ceil(bytes / MEGABYTE), limit: FILE_LIMIT_BYTES / MEGABYTE };
  return refuse(name, [{ code: "too-large", severity: "fault", path: [], facts }]);
}

/** The files packed in one; each is held to the limit of a file, all together to that of a pack, before anything is unpacked. */
function* readPacked(name: string, packed: Uint8Array): Generator<ReadFile> {
  const refused: ReadFile[] = [];
  let files: Record<string, Uint8Array> = {};
  let total = 0;
  try {
    files = unzipSync(packed, {
      filter(entry) {
        if (entry.name.endsWith("/")) return false;
        total += entry.originalSize;
        const isFine = entry.originalSize <= FILE_LIMIT_BYTES && total <= PACK_LIMIT_BYTES;
        if (!isFine) refused.push(tooLarge(entry.name, entry.originalSize));
        return isFine;
      },
    });
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    yield {
      kind: "refused",
      name,
      reasons: [`the file: it cannot be unpacked (${detail}): save it again`],
    };
  }
  for (const [inside, bytes] of Object.entries(files)) yield readSource(inside, strFromU8(bytes));
  yield* refused;
}

/**
 * Reads a file by its name and bytes, document by document: it holds one, or is a pack of them. One that is too large is
 * refused unread. Nothing is thrown; what does not read comes as a refusal with its reasons.
 */
export function* readEach(name: string, bytes: Uint8Array): Generator<ReadFile> {
  const refused = refuseTooLarge(name, bytes.length);
  if (refused) yield refused;
  else if (isPack(name)) yield* readPacked(name, bytes);
  else yield readSource(name, strFromU8(bytes));
}
