import { blameJob } from "./blame";
import { evaluateJob } from "./evaluate";
import { feelJob } from "./feel";
import { fitJob } from "./fit";
import { handsJob } from "./hands";
import { makeFilesJob } from "./makeFiles";
import { overlapsJob } from "./overlaps";
import { pictureJob } from "./picture";
import { proveJob } from "./prove";
import { storiesJob } from "./stories";
import { readFileJob } from "./readFile";
import { repairsJob } from "./repairs";
import { spreadJob } from "./spread";
import { sweepJob } from "./sweep";

/** Every kind of long work: one file and one line. */
export const JOBS = {
  blame: blameJob,
  evaluate: evaluateJob,
  feel: feelJob,
  fit: fitJob,
  hands: handsJob,
  makeFiles: makeFilesJob,
  overlaps: overlapsJob,
  picture: pictureJob,
  prove: proveJob,
  stories: storiesJob,
  readFile: readFileJob,
  repairs: repairsJob,
  spread: spreadJob,
  sweep: sweepJob,
} as const;
