export { fileNameOf, fileOf, formatFile, type FileDocument } from "./documents/documents";
export type { ExportFormat, Handover } from "./kind";
export { EXPORT_FORMATS } from "./kinds";
export { fileOfRaw, slugOf, textFile, type OutFile } from "./outFile";
export { packFiles, packFormat } from "./pack/pack";
export { readEach, readSource, refuseTooLarge, type ReadFile } from "./reading/readFile";
