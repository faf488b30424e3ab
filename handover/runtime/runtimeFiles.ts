import type { ExportFormat } from "../kind";
import { textFile, type OutFile } from "../outFile";

/** Returns one of the runtime's files, built with the application. */
export const runtimeFile = (name: string, text: string): OutFile =>
  textFile(name, text, name.endsWith(".md") ? "text/markdown" : "text/javascript");

/** Exports the runtime for games. Its files are built with the application (runtime/) and passed through. */
export const runtimeFormat: ExportFormat = {
  id: "runtime",
  word: "Runtime",
  hint: "The core as one module for a game, 32 KB packed, with its types, a loop to begin from, and the script that runs the test vectors, and the frame rules. The kit is the document below.",
  uses: ["parts"],
  commands: [{ as: "runtime" }],
  packed: { folder: "runtime", line: "the core as one module for a game" },
  files: (_handover, { runtime }) => runtime,
};
