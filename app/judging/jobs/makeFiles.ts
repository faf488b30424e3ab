import { EXPORT_FORMATS, type Handover, type HandoverParts, type OutFile } from "#handover";
import type { Job } from "./job";
import { createProgressReporter } from "./slices";

/** Makes the files of one export form, including its takes. */
export const makeFilesJob: Job<
  { readonly format: string; readonly parts: HandoverParts } & Omit<Handover, "takes">,
  readonly OutFile[]
> = ({ format, parts, ...handover }, takes, tools) => {
  const form = EXPORT_FORMATS.find(item => item.id === format);
  if (!form) throw new Error(`there is no form "${format}"`);
  // The step that is under way goes with every report.
  const report = createProgressReporter(tools, 0);
  const files = form.files({ ...handover, takes }, parts, (done, of, step) => report(done, of, () => step));
  return { value: files, transfer: [...new Set(files.map(file => file.bytes.buffer))] };
};
