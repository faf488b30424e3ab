import type { Program } from "../program/program";
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
 * Every kind of pattern: one folder and one line each. A kind's module exports its `schema` and `record`
 * separately, because the type of a kit is inferred from the schemas and the records refer to kits.
 */
export const PATTERN_KINDS = { press, release, tap, hold, charge, taps, chord, sequence, mash };

type Modules = typeof PATTERN_KINDS;

/** A compiled pattern of any kind, as plain data. */
export type PatternProgram = Parameters<Modules[keyof Modules]["record"]["stepper"]["step"]>[1];

/** A compiled kit with patterns of every kind. */
export type KitProgram = Program<PatternProgram>;
