import { unzipSync } from "fflate";
import { FILE_LIMIT_BYTES } from "#core";
import { DOCUMENTS_FOLDER, VARIANTS_FOLDER } from "../pack/documentsFolder";
import { isAsListed, MANIFEST_NAME, readManifest, type ManifestLine } from "../pack/manifest";
import { decodeText } from "./decodeText";
import { readSource, type ReadFile } from "./readSource";

const MEGABYTE = 1024 * 1024;
/** The maximum unpacked size of all files of a pack. */
export const PACK_LIMIT_BYTES = 256 * MEGABYTE;
/** The maximum number of files in a pack. */
const MAX_FILES = 20_000;
/** The number of bytes unpacked at a time. */
const BATCH_BYTES = 16 * MEGABYTE;
/** The maximum compression ratio; no document of ours compresses further. */
const MAX_COMPRESSION_RATIO = 500;
/** Files up to this size may have any compression ratio. */
const SMALL_BYTES = MEGABYTE;

interface Entry {
  readonly name: string;
  readonly bytes: number;
}

/** Returns whether a name leads out of the pack, or is absolute. */
function isClimbing(name: string): boolean {
  return /^([\\/]|[a-z]:)/i.test(name) || name.split(/[\\/]/).includes("..");
}

const megabytes = (bytes: number) => `${Math.ceil(bytes / MEGABYTE)} MB`;

/** Returns the reason for not unpacking a file of a pack; undefined if it can be unpacked. */
function whyNot(name: string, bytes: number, packedBytes: number, isKnown: boolean): string | undefined {
  if (isClimbing(name)) return "its name leads out of the pack: give it a plain name, and pack it again";
  if (isKnown) return "its name is in the pack twice: only the first is read. Give each a name of its own";
  if (bytes > FILE_LIMIT_BYTES)
    return `${megabytes(bytes)} is more than the ${megabytes(FILE_LIMIT_BYTES)} a file may have: cut the take shorter`;
  if (bytes > SMALL_BYTES && bytes > packedBytes * MAX_COMPRESSION_RATIO)
    return `it would unpack to ${Math.round(bytes / Math.max(1, packedBytes))} times its size, which no file of ours does: it is left packed`;
  return undefined;
}

/** Returns whether a pack holds its documents in a folder of their own. */
function hasDocumentsFolder(names: readonly Entry[]): boolean {
  return names.some(({ name }) => name.startsWith(`${DOCUMENTS_FOLDER}/`));
}

/** Returns whether a file of a pack with a documents folder is a variant, by its name. */
const isVariant = (name: string) => name.startsWith(`${VARIANTS_FOLDER}/`);

/** Returns the reason for skipping a valid file that is not a document; undefined for a document. */
function whyPassed(name: string, isApart: boolean): string | undefined {
  const isKept = !isApart || name.startsWith(`${DOCUMENTS_FOLDER}/`) || isVariant(name);
  const isDocument = /\.json$/i.test(name) && isKept;
  if (isDocument) return undefined;
  return /\.zip$/i.test(name)
    ? "a pack in a pack: unpack this one, and read in what is wanted of it"
    : "no document: it is for people and games, and is made again from the kit";
}

/**
 * Lists the files of a pack without unpacking it: those to unpack, and refusals. Throws for data that is not
 * a pack.
 */
function listEntries(packed: Uint8Array): { entries: Entry[]; refused: ReadFile[] } {
  const entries: Entry[] = [];
  const refused: ReadFile[] = [];
  const known = new Set<string>();
  let total = 0;
  let unreported = 0;
  unzipSync(packed, {
    filter({ name, size, originalSize }) {
      if (name.endsWith("/")) return false;
      const why = whyNot(name, originalSize, size, known.has(name));
      known.add(name);
      if (why !== undefined) refused.push({ kind: "refused", name, reasons: [why] });
      else if (entries.length >= MAX_FILES || total + originalSize > PACK_LIMIT_BYTES) unreported++;
      else {
        total += originalSize;
        entries.push({ name, bytes: originalSize });
      }
      return false;
    },
  });
  if (unreported > 0) {
    const most = `${MAX_FILES} files and ${megabytes(PACK_LIMIT_BYTES)} unpacked`;
    const reason = `a pack may hold ${most}: it was left packed. Make two packs of it`;
    refused.push({ kind: "refused", name: `${unreported} more in the pack`, reasons: [reason] });
  }
  return { entries, refused };
}

/** Yields entries in batches that are unpacked together. */
function* batches(entries: readonly Entry[]): Generator<ReadonlySet<string>> {
  let batch = new Set<string>();
  let bytes = 0;
  for (const entry of entries) {
    if (batch.size > 0 && bytes + entry.bytes > BATCH_BYTES) {
      yield batch;
      batch = new Set();
      bytes = 0;
    }
    batch.add(entry.name);
    bytes += entry.bytes;
  }
  if (batch.size > 0) yield batch;
}

function unpack(packed: Uint8Array, names: ReadonlySet<string>): Record<string, Uint8Array> {
  const given = new Set<string>();
  return unzipSync(packed, {
    filter({ name }) {
      if (!names.has(name) || given.has(name)) return false;
      given.add(name);
      return true;
    },
  });
}

/** Returns the skipped files one by one; for a pack with a documents folder all in one line. */
function reportPassed(entries: readonly Entry[], isApart: boolean): ReadFile[] {
  const passed = entries.flatMap(({ name }): (ReadFile & { kind: "passed" })[] => {
    const why = whyPassed(name, isApart);
    return why === undefined ? [] : [{ kind: "passed", name, why }];
  });
  if (!isApart || passed.length === 0) return passed;
  const why = `no documents: they are for people and games, and are made again from the kit`;
  return [{ kind: "passed", name: `${passed.length} more files of the pack`, why }];
}

/** Reads one file of a pack; `isApart` if the pack has a documents folder, and may have one of variants. */
function readOne(
  name: string,
  bytes: Uint8Array,
  manifest: ReadonlyMap<string, ManifestLine> | undefined,
  isApart: boolean,
): readonly ReadFile[] {
  if (manifest?.has(name) && !isAsListed(manifest, name, bytes)) {
    const reason = `it differs from its entry in ${MANIFEST_NAME}: damaged, or changed since. If it was changed on purpose, unpack it and read in the file itself`;
    return [{ kind: "refused", name, reasons: [reason] }];
  }
  const read = readSource(name, decodeText(bytes));
  if (!isApart || !isVariant(name)) return read;
  return read.map(file => (file.kind === "kit" ? { ...file, kind: "variant" } : file));
}

/**
 * Reads the files of a pack (zip) one after the other. Yields the bytes unpacked so far, so that it can pause
 * between two files. Before unpacking, each file is checked against the limits of a file and all together
 * against those of a pack; names that lead out of the pack or are duplicates, and excessive compression
 * ratios, are refused. If the pack has a manifest, a file that differs from it is refused. Files that are not
 * documents are skipped and reported. A truncated pack is refused as a whole.
 */
export function* readPack(name: string, packed: Uint8Array): Generator<number, readonly ReadFile[]> {
  try {
    const { entries, refused } = listEntries(packed);
    const listed = unpack(packed, new Set([MANIFEST_NAME]))[MANIFEST_NAME];
    const manifest = listed && readManifest(decodeText(listed));
    const isApart = hasDocumentsFolder(entries);
    const read: ReadFile[] = [];
    let done = 0;
    for (const batch of batches(entries.filter(entry => whyPassed(entry.name, isApart) === undefined)))
      for (const [inside, bytes] of Object.entries(unpack(packed, batch))) {
        read.push(...readOne(inside, bytes, manifest, isApart));
        done += bytes.length;
        yield done;
      }
    return [...read, ...reportPassed(entries, isApart), ...refused];
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return [
      { kind: "refused", name, reasons: [`the file: it cannot be unpacked (${detail}): save it again`] },
    ];
  }
}
