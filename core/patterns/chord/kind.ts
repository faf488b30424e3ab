import { chordStudy } from "./study";
import type { Starter } from "../../kit/starter";
import type { PatternKindRecord } from "../kind";
import { compileChord } from "./compile";
import { describeChord, offerChord } from "./describe";
import type { ChordProgram } from "./program";
import { chordHeldRatio, chordMade, chordStepper } from "./step";

export { chordSchema as schema } from "./schema";

/** Starting points for a new chord. */
const starters: readonly Starter[] = [
  {
    id: "chord",
    words: "Two buttons together",
    line: "pressed as one, within a few frames of each other",
    make(control, take, kit) {
      const id = take("pattern", "Together");
      const other = kit.controls.find(item => item !== control);
      const second = other ?? { id: take("control", "Other"), name: "Other", bindings: [["key:KeyL"]] };
      return {
        ...(other ? {} : { controls: [second] }),
        patterns: [{ id, name: "Together", kind: "chord", controls: [control.id, second.id], spread: "4f" }],
        opens: `pattern:${id}`,
      };
    },
  },
];

/** The registry record of chords. */
export const record: PatternKindRecord<"chord", ChordProgram> = {
  compile: compileChord,
  stepper: chordStepper,
  describe: describeChord,
  offer: offerChord,
  starters,
  carries: [],
  ...chordStudy,
  playedOn: ({ controls }) => controls,
  maps: [],
  made: chordMade,
  total: ({ controls }) => controls.length,
  heldRatio: chordHeldRatio,
  levers: (_pattern, why) =>
    why === "too-short"
      ? [{ path: ["for"], rounding: "atLeast", direction: -1 }]
      : [{ path: ["spread"], rounding: "atMost", direction: 1 }],
};
