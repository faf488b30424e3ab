import type { Kit, Pattern, PatternKind } from "../kit/schema";
import { ruleName, type Offer, type SentencePart } from "../kit/sentence";
import { describeCharge, offerCharge } from "./charge/describe";
import { describeChord, offerChord } from "./chord/describe";
import {
  describeCaptures,
  describeWhere,
  offerIf,
  offerWhere,
  type DescribeKind,
  type OfferKind,
} from "./describeParts";
import { describeHold, offerHold } from "./hold/describe";
import { describeMash, offerMash } from "./mash/describe";
import { describePress, offerPress } from "./press/describe";
import { describeRelease, offerRelease } from "./release/describe";
import { describeSequence, offerSequence } from "./sequence/describe";
import { describeTap, offerTap } from "./tap/describe";
import { describeTaps, offerTaps } from "./taps/describe";

/** One line a kind; a kind left out does not compile. */
const DESCRIBERS: { readonly [K in PatternKind]: readonly [DescribeKind<K>, OfferKind<K>] } = {
  press: [describePress, offerPress],
  release: [describeRelease, offerRelease],
  tap: [describeTap, offerTap],
  hold: [describeHold, offerHold],
  charge: [describeCharge, offerCharge],
  taps: [describeTaps, offerTaps],
  chord: [describeChord, offerChord],
  sequence: [describeSequence, offerSequence],
  mash: [describeMash, offerMash],
};

/** A pattern as one sentence, its name first, with its numbers and choices in place. Paths are inside the pattern. */
export function describePattern(pattern: Pattern, kit: Kit): SentencePart[] {
  const [describe] = DESCRIBERS[pattern.kind] as unknown as readonly [DescribeKind<PatternKind>];
  return [
    ruleName(pattern.name || pattern.id),
    ...describe(pattern, kit),
    ...describeCaptures(pattern),
    ...describeWhere(pattern),
  ];
}

/** What else a pattern could say, each with the pattern as it would then be. */
export function offerPattern(pattern: Pattern, kit: Kit): Offer<Pattern>[] {
  const [, offer] = DESCRIBERS[pattern.kind] as unknown as readonly [unknown, OfferKind<PatternKind>];
  return [
    ...offer(pattern, kit),
    ...offerIf(!pattern.captures, "… and keep its controls from other rules", () => ({
      ...pattern,
      captures: true,
    })),
    ...offerWhere(pattern, kit),
  ];
}
