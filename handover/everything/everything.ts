import { checksOf, fileOf } from "../documents/documents";
import type { ExportFormat, Handover, HandoverParts } from "../kind";
import { numbersFormat } from "../numbers/numbers";
import { slugOf, textFile, type OutFile } from "../outFile";
import { makePage } from "../page/page";
import { makeManifest } from "../pack/manifest";
import { DOCUMENTS_FOLDER, nameApart, zipFiles } from "../pack/pack";
import { formatJsonSchemas } from "../schemas/jsonSchemas";
import { sheetFormat } from "../sheet/sheet";
import { makeVectors } from "../vectors/vectors";
import { createRuns, type Runs } from "../runs";
import { makeWaveforms } from "../waveform/waveform";

const README = (name: string) => `# ${name}: what was handed over

- \`documents/\`: the kit, its takes, layouts and checks. They come back in: drop this whole file on the shelf.
- \`variants/\`: the rules as they once were, each a kit of its own to read in, where any were kept.
- \`sheet/\`: the timing sheet for people. \`numbers/\`: every length and figure, as CSV, JSON and a C header.
- \`page/\`: plays the kit in a browser, from a disk; rounds played there come back as one file of takes.
- \`runtime/\`: the core as one module for a game. \`vectors/\`: what it, or a port, must make of the takes.
- \`waveforms/\`: each take with what was made of it, as a value change dump. \`pictures/\`: the tape and the maps.
- \`schemas/\`: JSON Schemas of the documents. \`manifest.json\`: size and SHA-256 of every file.
`;

const under = (folder: string, files: readonly OutFile[]) =>
  files.map(file => ({ ...file, name: `${folder}/${file.name}` }));

/** Returns all files of all forms, in folders; names are unique within a folder. */
function listEverything(handover: Handover, parts: HandoverParts, runs: Runs | undefined): OutFile[] {
  const { kit, takes, layouts, checks } = handover;
  const documents = [kit, ...takes, ...layouts, ...checksOf(kit, checks)].map(fileOf);
  const vectors = Object.entries(makeVectors(handover, runs) ?? {}).map(([name, bytes]): OutFile => ({
    name,
    bytes: bytes as Uint8Array<ArrayBuffer>,
    type: "",
  }));
  const variants = (handover.variants ?? []).map(variant => fileOf({ ...variant.kit, name: variant.name }));
  const schemas = Object.entries(formatJsonSchemas()).map(([name, text]) =>
    textFile(name.replace("docs/schema/", ""), text, "application/json"),
  );
  const files = [
    textFile("README.md", README(kit.name || kit.id), "text/markdown"),
    ...under(DOCUMENTS_FOLDER, documents),
    ...under("variants", variants),
    ...under("sheet", sheetFormat.files(handover, parts)),
    ...under("numbers", numbersFormat.files(handover, parts)),
    ...under("page", parts.player ? makePage(handover, parts.player) : []),
    ...under("runtime", parts.runtime),
    ...under("vectors", vectors),
    ...under("waveforms", makeWaveforms(takes, runs)),
    ...under("pictures", parts.pictures),
    ...under("schemas", schemas),
  ];
  const used = new Set<string>();
  return files.map(file => ({ ...file, name: nameApart(file.name, used) }));
}

/** Exports everything in one zip with a manifest of sizes and hashes; equal kits give equal bytes. */
export const everythingFormat: ExportFormat = {
  id: "everything",
  word: "All in one",
  hint: "Every file below in one zip, with a manifest of sizes and SHA-256. It is read in as one, too.",
  runsTakes: true,
  takesSheetOptions: true,
  needsParts: true,
  needsPictures: true,
  isLarge: true,
  files(handover, parts, tell) {
    const files = listEverything(handover, parts, createRuns(handover, tell));
    const all = [makeManifest(files), ...files];
    const bytes = zipFiles(Object.fromEntries(all.map(file => [file.name, file.bytes])));
    return [{ name: `${slugOf(handover.kit.name) || "kit"}.all.zip`, bytes, type: "application/zip" }];
  },
};
