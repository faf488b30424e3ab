import { blameJob } from "./blame";
import { evaluateJob } from "./evaluate";
import { feelJob } from "./feel";
import { fitJob } from "./fit";
import { goalJob } from "./goal";
import { handsJob } from "./hands";
import { makeFilesJob } from "./makeFiles";
import { overlapsJob } from "./overlaps";
import { offerJob } from "./offer";
import { pictureJob } from "./picture";
import { pricesJob } from "./prices";
import { proveJob } from "./prove";
import { storiesJob } from "./stories";
import { readFilesJob } from "./readFiles";
import { readRecordingJob } from "./readRecording";
import { repairsJob } from "./repairs";
import { sheetBodyJob } from "./sheetBody";
import { spreadJob } from "./spread";
import { sweepJob } from "./sweep";

/** Every kind of long work: one file and one line each. */
export const JOBS = {
  blame: blameJob,
  evaluate: evaluateJob,
  feel: feelJob,
  fit: fitJob,
  goal: goalJob,
  hands: handsJob,
  makeFiles: makeFilesJob,
  overlaps: overlapsJob,
  offer: offerJob,
  picture: pictureJob,
  prices: pricesJob,
  prove: proveJob,
  stories: storiesJob,
  readFiles: readFilesJob,
  readRecording: readRecordingJob,
  repairs: repairsJob,
  sheetBody: sheetBodyJob,
  spread: spreadJob,
  sweep: sweepJob,
} as const;
