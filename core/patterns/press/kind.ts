import { pressStudy } from "./study";
import type { PatternKindRecord } from "../kind";
import { compilePress } from "./compile";
import { describePress, offerPress } from "./describe";
import type { PressProgram } from "./program";
import { pressStepper } from "./step";
import { pressStarters } from "./starters";

export { pressSchema as schema } from "./schema";

/** The registry record of presses. */
export const record: PatternKindRecord<"press", PressProgram> = {
  compile: compilePress,
  stepper: pressStepper,
  describe: describePress,
  offer: offerPress,
  starters: pressStarters,
  carries: ["repeat"],
  ...pressStudy,
  playedOn: ({ control }) => [control],
  maps: [],
};
