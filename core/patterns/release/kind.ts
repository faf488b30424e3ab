import { releaseStudy } from "./study";
import type { PatternKindRecord } from "../kind";
import { compileRelease } from "./compile";
import { describeRelease, offerRelease } from "./describe";
import type { ReleaseProgram } from "./program";
import { releaseStepper } from "./step";
import { releaseStarters } from "./starters";

export { releaseSchema as schema } from "./schema";

/** The registry record of releases. */
export const record: PatternKindRecord<"release", ReleaseProgram> = {
  compile: compileRelease,
  stepper: releaseStepper,
  describe: describeRelease,
  offer: offerRelease,
  starters: releaseStarters,
  carries: ["held"],
  ...releaseStudy,
  playedOn: ({ control }) => [control],
  maps: [],
  firesLetGo: () => true,
};
