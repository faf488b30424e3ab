import { zipSync } from "fflate";
import { checksOf, fileOf, type FileDocument } from "../documents/documents";
import type { ExportFormat } from "../kind";
import { slugOf, type OutFile } from "../outFile";

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

/** The documents in one file. */
export const packFormat: ExportFormat = {
  id: "pack",
  word: "All in one",
  hint: "Every document in one zip file. It is read in as one, too.",
  files: ({ kit, takes, layouts, checks }) => [
    packFiles([kit, ...takes, ...layouts, ...checksOf(kit, checks)]),
  ],
};
