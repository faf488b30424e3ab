import { zipSync, type Zippable } from "fflate";
import { fileOf, type FileDocument } from "../documents/documents";
import { slugOf, type OutFile } from "../outFile";

/**
 * The fixed time of all packed files, so that equal files give equal bytes: the earliest the format allows.
 */
const PACKED_AT = "1980-01-01T00:00";

/** Packs files as a zip; equal files give equal bytes. */
export function zipFiles(files: Zippable): Uint8Array<ArrayBuffer> {
  return zipSync(files, { mtime: PACKED_AT, level: 3 }) as Uint8Array<ArrayBuffer>;
}

/** Returns a name not used yet, made of the wanted one: `a.take.json`, `a-2.take.json`. Marks it as used. */
export function nameApart(wanted: string, used: Set<string>): string {
  let free = wanted;
  for (let n = 2; used.has(free); n++) free = wanted.replace(/^(.*\/)?([^./]*)(.*)$/, `$1$2-${n}$3`);
  used.add(free);
  return free;
}

/** Packs several documents as one file named after the first; duplicate names get a number. */
export function packFiles(documents: readonly FileDocument[]): OutFile {
  const used = new Set<string>();
  const packed = documents.map(fileOf).map(({ name, bytes }) => [nameApart(name, used), bytes] as const);
  const name = `${slugOf(documents[0]?.name ?? "") || "moss-tap"}.zip`;
  return { name, bytes: zipFiles(Object.fromEntries(packed)), type: "application/zip" };
}
