import { zipSync, type Zippable } from "fflate";
import { fileOf, type FileDocument } from "../documents/documents";
import { slugOf, type OutFile } from "../outFile";

/** A time that every pack bears, so that the same files give the same bytes: the first that the format knows. */
const PACKED_AT = "1980-01-01T00:00";

/** The folder of a pack in which documents lie, where it holds other files too. */
export const DOCUMENTS_FOLDER = "documents";

/** Files as a zip; the same files give the same bytes. */
export function zipFiles(files: Zippable): Uint8Array<ArrayBuffer> {
  return zipSync(files, { mtime: PACKED_AT, level: 3 }) as Uint8Array<ArrayBuffer>;
}

/** A name that is not used yet, made of the one wanted: `a.take.json`, `a-2.take.json`. It is used from now on. */
export function nameApart(wanted: string, used: Set<string>): string {
  let free = wanted;
  for (let n = 2; used.has(free); n++) free = wanted.replace(/^(.*\/)?([^./]*)(.*)$/, `$1$2-${n}$3`);
  used.add(free);
  return free;
}

/** Several documents as one packed file named after the first; two of one name get a number. */
export function packFiles(documents: readonly FileDocument[]): OutFile {
  const used = new Set<string>();
  const packed = documents.map(fileOf).map(({ name, bytes }) => [nameApart(name, used), bytes] as const);
  const name = `${slugOf(documents[0]?.name ?? "") || "moss-tap"}.zip`;
  return { name, bytes: zipFiles(Object.fromEntries(packed)), type: "application/zip" };
}
