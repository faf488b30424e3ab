import { documentsFormat } from "./documents/documents";
import { everythingFormat } from "./everything/everything";
import type { ExportFormat } from "./kind";
import { numbersFormat } from "./numbers/numbers";
import { packFormat } from "./pack/packFormat";
import { pageFormat } from "./page/page";
import { picturesFormat } from "./pictures/pictures";
import { runtimeFormat } from "./runtime/runtimeFiles";
import { sheetFormat } from "./sheet/sheet";
import { vectorsFormat } from "./vectors/vectors";
import { waveformFormat } from "./waveform/waveform";

/** Every export form, in display order: one folder and one line each. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [
  everythingFormat,
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
