import type { Pattern, PatternKind } from "../kit/schema";
import type { PatternBase } from "../program/program";
import type { PatternProgram } from "./kinds";
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
 * Returns the record of a pattern's kind. The caller must pass pattern and program of that same kind, which the
 * types do not check.
 */
export function recordOf(kind: PatternBase["kind"]): PatternKindRecord<PatternKind, PatternBase> {
  return KINDS[kind as PatternKind].record as unknown as PatternKindRecord<PatternKind, PatternBase>;
}

/** Returns the traits of the kind of a pattern or of its program. */
export function traitsOf(kind: PatternBase["kind"]): PatternTraits<Pattern, PatternBase> {
  return KINDS[kind as PatternKind].record as unknown as PatternTraits<Pattern, PatternBase>;
}
