import type { Pattern, PatternKind } from "../kit/schema";
import { ruleName, type SentencePart } from "../kit/sentence";
import { describeCharge } from "./charge/describe";
import { describeChord } from "./chord/describe";
import type { DescribeKind } from "./describeParts";
import { describeHold } from "./hold/describe";
import { describeMash } from "./mash/describe";
import { describePress } from "./press/describe";
import { describeRelease } from "./release/describe";
import { describeSequence } from "./sequence/describe";
import { describeTap } from "./tap/describe";
import { describeTaps } from "./taps/describe";

/** One line a kind; a kind left out does not compile. */
const DESCRIBERS: { readonly [K in PatternKind]: DescribeKind<K> } = {
  press: describePress,
  release: describeRelease,
  tap: describeTap,
  hold: describeHold,
  charge: describeCharge,
  taps: describeTaps,
  chord: describeChord,
  sequence: describeSequence,
  mash: describeMash,
};

/** A pattern as one sentence, its name first, with its numbers and choices in place. Paths are inside the pattern. */
export function describePattern(pattern: Pattern): SentencePart[] {
  const describe = DESCRIBERS[pattern.kind] as DescribeKind<PatternKind>;
  return [ruleName(pattern.name || pattern.id), ...describe(pattern)];
}
