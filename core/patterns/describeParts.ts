import type { PatternKind, PatternOf } from "../kit/schema";
import { enumerate, control, words, type Option, type SentencePart } from "../kit/sentence";

/** A kind's sentence; it begins after the pattern's name and ends without a full stop. */
export type DescribeKind<K extends PatternKind> = (pattern: PatternOf<K>) => SentencePart[];

/** The clause for controls that cancel an attempt. */
export function describeCancel(cancel: readonly string[] | undefined): SentencePart[] {
  if (!cancel || cancel.length === 0) return [];
  const names = cancel.map((id, k) => control(id, ["cancel", k], "cancelling control"));
  return [words("; "), ...enumerate(names, "or"), words(" cancels it")];
}

export const FIRE_ON_REACH: readonly Option[] = [
  { value: "reach", label: "at once", hint: "fires on the frame on which the length is reached" },
  { value: "release", label: "when let go", hint: "fires on letting go, if it was held that long" },
];
