import { documentsFormat } from "./documents/documents";
import { createEverythingFormat } from "./everything/everything";
import type { ExportFormat } from "./kind";
import { numbersFormat } from "./numbers/numbers";
import { packFormat } from "./pack/packFormat";
import { pageFormat } from "./page/page";
import { picturesFormat } from "./pictures/pictures";
import { runtimeFormat } from "./runtime/runtimeFiles";
import { sheetFormat } from "./sheet/sheet";
import { vectorsFormat } from "./vectors/vectors";
import { waveformFormat } from "./waveform/waveform";

/** Every export form but the pack of all of them, in display order: one folder and one line each. */
const FORMS: readonly ExportFormat[] = [
  sheetFormat,
  pageFormat,
  numbersFormat,
  runtimeFormat,
  vectorsFormat,
  waveformFormat,
  picturesFormat,
  packFormat,
  documentsFormat,
];

/** Every export form, in display order. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [createEverythingFormat(FORMS), ...FORMS];
