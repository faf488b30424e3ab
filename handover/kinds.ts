import { documentsFormat } from "./documents/documents";
import type { ExportFormat } from "./kind";
import { numbersFormat } from "./numbers/numbers";
import { packFormat } from "./pack/pack";
import { sheetFormat } from "./sheet/sheet";
import { vectorsFormat } from "./vectors/vectors";
import { waveformFormat } from "./waveform/waveform";

/** Every form in which a kit leaves, in the order in which they are shown: one folder and one line. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [
  packFormat,
  sheetFormat,
  numbersFormat,
  vectorsFormat,
  waveformFormat,
  documentsFormat,
];
