import { atMost, choice, control, count, optional, words, type Option } from "../../kit/sentence";
import { offerIf, type DescribeKind, type OfferKind } from "../describeParts";

const ANSWER: readonly Option[] = [
  { value: "nth", label: "the last tap", hint: "fires on the last tap alone; fewer taps are nothing" },
  { value: "each", label: "every tap", hint: "fires at once on every tap, the first too" },
  {
    value: "final",
    label: "the count, once sure",
    hint: "waits until no further tap can come: the single pays the whole gap",
  },
];

export const describeTaps: DescribeKind<"taps"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is tapped "),
  count(pattern.count, ["count"], "number of taps", 1),
  words(pattern.count === 1 ? " time, within " : " times, each within "),
  atMost(pattern.gap, ["gap"], "longest gap between taps", 1),
  words(" of the one before, answering "),
  choice(pattern.answer, ANSWER, ["answer"], "what it answers"),
  ...optional(pattern.max, ["max"], max => [
    words("; no tap longer than "),
    atMost(max, ["max"], "longest tap", 1),
  ]),
];

export const offerTaps: OfferKind<"taps"> = pattern =>
  offerIf(pattern.max === undefined, "… with no tap longer than so much", () => ({ ...pattern, max: "12f" }));
