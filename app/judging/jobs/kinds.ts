import { evaluateJob } from "./evaluate";
import { pictureJob } from "./picture";
import { repairsJob } from "./repairs";

/** Every kind of long work: one file and one line. */
export const JOBS = { evaluate: evaluateJob, picture: pictureJob, repairs: repairsJob } as const;
