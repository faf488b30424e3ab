export { INERT_CSV } from "./documents/inertText";
export { fileNameOf, fileOf, formatFile, type FileDocument } from "./documents/documents";
export {
  NO_PARTS,
  type ExportFormat,
  type Handover,
  type HandoverParts,
  type MakingStep,
  type NamedRules,
  type OnProgress,
  type SheetOptions,
} from "./kind";
export { EXPORT_FORMATS } from "./kinds";
export { createSlugs, fileOfRaw, slugOf, textFile, type OutFile } from "./outFile";
export { packFiles, zipFiles } from "./pack/pack";
export { packFormat } from "./pack/packFormat";
export { isAsListed, makeManifest, MANIFEST_NAME, readManifest, type ManifestLine } from "./pack/manifest";
export { runtimeFile } from "./runtime/runtimeFiles";
export { facesOf, makePage, type PlayerParts } from "./page/page";
export { decodeText, encodingOf } from "./reading/decodeText";
export { isRecordingName, readEach, readWhole, refuseTooLarge } from "./reading/readFile";
export { readSource, type ReadFile } from "./reading/readSource";
export { readPack } from "./reading/readPack";
export { listFigures, type Figure } from "./numbers/listFigures";
export { readVcd, type Dump, type DumpSignal } from "./waveform/readVcd";
export { unitFor, writeVcd } from "./waveform/writeVcd";
export { formatJsonSchemas } from "./schemas/jsonSchemas";
export { escapeHtml } from "./sheet/escapeHtml";
export { formatSheet, formatSheetBody, OTHER_RATES } from "./sheet/sheet";
export { PAGE_STYLE, SHEET_STYLE } from "./sheet/style";
export {
  readCell,
  readNumber,
  readSignedCell,
  toFrames,
  type NamedTake,
  type ReadRecording,
} from "./recordings/createRecording";
export { placeSource, wordSource } from "./recordings/cellWords";
export {
  guessChangeColumns,
  guessDumpMapping,
  guessTableMapping,
  guessWords,
} from "./recordings/guessMapping";
export { guessControls, guessGates, guessMoves, guessSpeeds } from "./recordings/guessNames";
export { readDump } from "./recordings/readDump";
export {
  beginTable,
  columnsOf,
  feedTable,
  listMapped,
  type TableFeed,
  type TableReader,
} from "./recordings/readTable";
export { glanceAtTable, parseTable, TABLE_HEAD_BYTES } from "./recordings/parseTable";
