import { checksOf } from "../documents/documents";
import type { ExportFormat } from "../kind";
import { packFiles } from "./pack";

/** Exports the documents in one file. */
export const packFormat: ExportFormat = {
  id: "pack",
  word: "Documents, packed",
  hint: "Kit, takes, layouts and checks in one zip, and nothing else. It is read in as one, too.",
  uses: [],
  commands: [{ as: "pack" }],
  packed: "none",
  files: ({ kit, takes, layouts, checks }) => [
    packFiles([kit, ...takes, ...layouts, ...checksOf(kit, checks)]),
  ],
};
