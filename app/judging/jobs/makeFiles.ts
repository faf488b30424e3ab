import type { Kit, Layout } from "#core";
import { EXPORT_FORMATS, type OutFile } from "#handover";
import type { Job } from "./job";

/** Makes the files of one form in which a kit leaves, with the takes it leaves with. */
export const makeFilesJob: Job<
  { readonly format: string; readonly kit: Kit; readonly layouts: readonly Layout[] },
  readonly OutFile[]
> = ({ format, kit, layouts }, takes) => {
  const form = EXPORT_FORMATS.find(item => item.id === format);
  if (!form) throw new Error(`there is no form "${format}"`);
  const files = form.files({ kit, takes, layouts });
  return { value: files, transfer: [...new Set(files.map(file => file.bytes.buffer))] };
};
