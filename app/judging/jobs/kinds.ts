import { blameJob } from "./blame";
import { evaluateJob } from "./evaluate";
import { makeFilesJob } from "./makeFiles";
import { pictureJob } from "./picture";
import { proveJob } from "./prove";
import { readFileJob } from "./readFile";
import { repairsJob } from "./repairs";

/** Every kind of long work: one file and one line. */
export const JOBS = {
  blame: blameJob,
  evaluate: evaluateJob,
  makeFiles: makeFilesJob,
  picture: pictureJob,
  prove: proveJob,
  readFile: readFileJob,
  repairs: repairsJob,
} as const;
