import { chordStudy } from "./study";
import type { PatternKindRecord } from "../kind";
import { compileChord } from "./compile";
import { describeChord, offerChord } from "./describe";
import type { ChordProgram } from "./program";
import { chordHeldRatio, chordMade, chordStepper } from "./step";
import { chordStarters } from "./starters";

export { chordSchema as schema } from "./schema";

/** The registry record of chords. */
export const record: PatternKindRecord<"chord", ChordProgram> = {
  compile: compileChord,
  stepper: chordStepper,
  describe: describeChord,
  offer: offerChord,
  starters: chordStarters,
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
