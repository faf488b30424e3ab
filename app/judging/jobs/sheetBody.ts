import { formatSheetBody, type Handover } from "#handover";
import type { Job } from "./job";

/** Makes the timing sheet of a kit with long takes, which are run for its checks. */
export const sheetBodyJob: Job<Omit<Handover, "takes">, string> = (handover, takes) => {
  return { value: formatSheetBody({ ...handover, takes }) };
};
