import type { ExportFormat } from "../kind";

/** The tape and the maps as they look. They are drawn by the screen, and only handed on here: a command line has none. */
export const picturesFormat: ExportFormat = {
  id: "pictures",
  word: "Pictures",
  hint: "The tape as it shows below, and every map, as SVG and PNG.",
  needsPictures: true,
  files: (_handover, { pictures }) => pictures,
};
