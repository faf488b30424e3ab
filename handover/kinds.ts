import { documentsFormat } from "./documents/documents";
import type { ExportFormat } from "./kind";
import { packFormat } from "./pack/pack";

/** Every form in which a kit leaves, in the order in which they are shown: one folder and one line. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [packFormat, documentsFormat];
