import { mashStudy } from "./study";
import type { Starter } from "../../kit/starter";
import type { PatternKindRecord } from "../kind";
import { compileMash } from "./compile";
import { describeMash, offerMash } from "./describe";
import type { MashProgram } from "./program";
import { mashMade, mashStepper } from "./step";

export { mashSchema as schema } from "./schema";

/** Starting points for a new mash. */
const starters: readonly Starter[] = [
  {
    id: "mash",
    words: "Mash",
    line: "so many presses in so little time",
    make(control, take) {
      const id = take("pattern", `${control.name} mash`);
      return {
        patterns: [
          { id, name: `${control.name} mash`, kind: "mash", controls: [control.id], count: 6, within: "60f" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];

/** The registry record of mashes. */
export const record: PatternKindRecord<"mash", MashProgram> = {
  compile: compileMash,
  stepper: mashStepper,
  describe: describeMash,
  offer: offerMash,
  starters,
  carries: [],
  ...mashStudy,
  playedOn: ({ controls }) => controls,
  maps: [],
  made: mashMade,
  total: ({ count }) => count,
};
