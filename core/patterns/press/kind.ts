import { pressStudy } from "./study";
import { press } from "../../kit/ingredients";
import type { Starter } from "../../kit/starter";
import type { PatternKindRecord } from "../kind";
import { compilePress } from "./compile";
import { describePress, offerPress } from "./describe";
import type { PressProgram } from "./program";
import { pressStepper } from "./step";

export { pressSchema as schema } from "./schema";

/** Starting points for a new press pattern. */
const starters: readonly Starter[] = [
  {
    id: "press",
    words: "Press",
    line: "on the frame it goes down",
    make(control, take) {
      const id = take("pattern", `${control.name} press`);
      return { patterns: [press(id, `${control.name} press`, control.id)], opens: `pattern:${id}` };
    },
  },
];

/** The registry record of presses. */
export const record: PatternKindRecord<"press", PressProgram> = {
  compile: compilePress,
  stepper: pressStepper,
  describe: describePress,
  offer: offerPress,
  starters,
  carries: ["repeat"],
  ...pressStudy,
  playedOn: ({ control }) => [control],
  maps: [],
};
