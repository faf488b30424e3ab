import { evaluateJob } from "./evaluate";
import { makeFilesJob } from "./makeFiles";
import { pictureJob } from "./picture";
import { readFileJob } from "./readFile";
import { repairsJob } from "./repairs";

/** Every kind of long work: one file and one line. */
export const JOBS = {
  evaluate: evaluateJob,
  makeFiles: makeFilesJob,
  picture: pictureJob,
  readFile: readFileJob,
  repairs: repairsJob,
} as const;
