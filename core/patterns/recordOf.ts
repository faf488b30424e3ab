import type { Pattern, PatternKind } from "../kit/schema";
import type { PatternProgram } from "../run/program";
import type { PatternKindRecord, PatternTraits } from "./kind";
import { PATTERN_KINDS } from "./kinds";

type Records = {
  readonly [K in PatternKind]: {
    readonly record: PatternKindRecord<K, Extract<PatternProgram, { readonly kind: K }>>;
  };
};

/** The names of all kinds, in the order of the registry. */
export const PATTERN_KIND_NAMES = Object.keys(PATTERN_KINDS) as readonly PatternKind[];

/** Fails to compile if a kind is missing from the registry or its record is incomplete. */
const KINDS: Records = PATTERN_KINDS;

/**
 * Returns a kind's record, for a pattern of any kind. The caller must pass pattern and program of that same
 * kind.
 */
export function recordOf(kind: PatternKind): PatternKindRecord<PatternKind, PatternProgram> {
  return KINDS[kind].record as unknown as PatternKindRecord<PatternKind, PatternProgram>;
}

/** Returns the traits of the kind of a pattern or of its program. */
export function traitsOf(kind: PatternKind): PatternTraits<Pattern, PatternProgram> {
  return KINDS[kind].record as unknown as PatternTraits<Pattern, PatternProgram>;
}
