import type { ExportFormat } from "../kind";

/** What a game runs the kit with. The files are built with the application (runtime/), and only handed on here. */
export const runtimeFormat: ExportFormat = {
  id: "runtime",
  word: "Runtime",
  hint: "The core as one module for a game, 30 KB packed, with its types, a loop to begin from, and the script that runs the test vectors. The kit is the document below.",
  needsParts: true,
  files: (_handover, { runtime }) => runtime,
};
