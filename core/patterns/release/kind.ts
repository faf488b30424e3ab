import { releaseStudy } from "./study";
import type { Starter } from "../../kit/starter";
import type { PatternKindRecord } from "../kind";
import { compileRelease } from "./compile";
import { describeRelease, offerRelease } from "./describe";
import type { ReleaseProgram } from "./program";
import { releaseStepper } from "./step";

export { releaseSchema as schema } from "./schema";

/** Starting points for a new release pattern. */
const starters: readonly Starter[] = [
  {
    id: "release",
    words: "Release",
    line: "on the frame it comes up",
    make(control, take) {
      const id = take("pattern", `${control.name} release`);
      return {
        patterns: [{ id, name: `${control.name} release`, kind: "release", control: control.id }],
        opens: `pattern:${id}`,
      };
    },
  },
];

/** The registry record of releases. */
export const record: PatternKindRecord<"release", ReleaseProgram> = {
  compile: compileRelease,
  stepper: releaseStepper,
  describe: describeRelease,
  offer: offerRelease,
  starters,
  carries: ["held"],
  ...releaseStudy,
  playedOn: ({ control }) => [control],
  maps: [],
  firesLetGo: () => true,
};
