import type { Pattern, PatternKind } from "../kit/schema";
import type { PatternProgram } from "../run/program";
import type { PatternKindRecord, PatternTraits } from "./kind";
import { PATTERN_KINDS } from "./kinds";

type Records = {
  readonly [K in PatternKind]: {
    readonly record: PatternKindRecord<K, Extract<PatternProgram, { readonly kind: K }>>;
  };
};

/** A kind left out of the registry, or one that lacks anything, does not compile here. */
const KINDS: Records = PATTERN_KINDS;

/** A kind's record, for callers that hold a pattern of any kind: that both are of one kind is what they keep to. */
export function recordOf(kind: PatternKind): PatternKindRecord<PatternKind, PatternProgram> {
  return KINDS[kind].record as unknown as PatternKindRecord<PatternKind, PatternProgram>;
}

/** What a kind says of itself, for those who hold a pattern or its program. */
export function traitsOf(kind: PatternKind): PatternTraits<Pattern, PatternProgram> {
  return KINDS[kind].record as unknown as PatternTraits<Pattern, PatternProgram>;
}
