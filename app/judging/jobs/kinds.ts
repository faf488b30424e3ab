import { evaluateJob } from "./evaluate";
import { missesJob } from "./misses";
import { pictureJob } from "./picture";

/** Every kind of long work: one file and one line. */
export const JOBS = { evaluate: evaluateJob, misses: missesJob, picture: pictureJob } as const;
