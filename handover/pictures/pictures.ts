import type { ExportFormat } from "../kind";

/** Exports pictures of the tape and the maps. The screen draws them, so a command line has none. */
export const picturesFormat: ExportFormat = {
  id: "pictures",
  word: "Pictures",
  hint: "The tape as it shows below, and every map, as SVG and PNG.",
  uses: ["pictures"],
  commands: [],
  packed: { folder: "pictures", line: "the tape and the maps" },
  files: (_handover, { pictures }) => pictures,
};
