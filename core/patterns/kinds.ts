import * as charge from "./charge/kind";
import * as chord from "./chord/kind";
import * as hold from "./hold/kind";
import * as mash from "./mash/kind";
import * as press from "./press/kind";
import * as release from "./release/kind";
import * as sequence from "./sequence/kind";
import * as tap from "./tap/kind";
import * as taps from "./taps/kind";

/**
 * Every kind of pattern: one folder and one line. A kind's module gives its `schema` and its `record`, apart, since the
 * type of a kit is made of the schemas and the records speak of kits.
 */
export const PATTERN_KINDS = { press, release, tap, hold, charge, taps, chord, sequence, mash };

type Modules = typeof PATTERN_KINDS;

/** A pattern ready to be stepped, of any kind: what the kinds' steppers take. Plain data. */
export type PatternProgram = Parameters<Modules[keyof Modules]["record"]["stepper"]["step"]>[1];
