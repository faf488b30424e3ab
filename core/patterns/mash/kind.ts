import { mashStudy } from "./study";
import type { PatternKindRecord } from "../kind";
import { compileMash } from "./compile";
import { describeMash, offerMash } from "./describe";
import type { MashProgram } from "./program";
import { mashMade, mashStepper } from "./step";
import { mashStarters } from "./starters";

export { mashSchema as schema } from "./schema";

/** The registry record of mashes. */
export const record: PatternKindRecord<"mash", MashProgram> = {
  compile: compileMash,
  stepper: mashStepper,
  describe: describeMash,
  offer: offerMash,
  starters: mashStarters,
  carries: [],
  ...mashStudy,
  playedOn: ({ controls }) => controls,
  maps: [],
  made: mashMade,
  total: ({ count }) => count,
};
