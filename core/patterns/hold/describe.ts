import { atLeast, atMost, control, optional, swap, words, type SwapOption } from "../../kit/sentence";
import type { PatternOf } from "../../kit/schema";
import {
  describeCancel,
  FIRE_ON_REACH,
  offerCancel,
  offerIf,
  type DescribeKind,
  type OfferKind,
} from "../describeParts";

/** Returns the hold with each way of firing; fields that only one way allows are omitted. */
function fireOptions(pattern: PatternOf<"hold">): SwapOption[] {
  return FIRE_ON_REACH.map(option => {
    const { max, repeat, ...rest } = pattern;
    const becomes =
      option.value === "reach"
        ? { ...rest, fire: "reach", ...(repeat ? { repeat } : {}) }
        : { ...rest, fire: "release", ...(max === undefined ? {} : { max }) };
    return { ...option, becomes };
  });
}

export const describeHold: DescribeKind<"hold"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is held for "),
  atLeast(pattern.for, ["for"], "length of the hold"),
  ...optional(pattern.max, ["max"], max => [
    words(" and no longer than "),
    atMost(max, ["max"], "longest hold", 1),
  ]),
  words(", "),
  swap(pattern.fire, fireOptions(pattern), [], "when it fires"),
  ...optional(pattern.repeat, ["repeat"], repeat => [
    words(", and again every "),
    atLeast(repeat.every, ["repeat", "every"], "repeat every", 1),
  ]),
  ...describeCancel(pattern.cancel),
];

export const offerHold: OfferKind<"hold"> = (pattern, kit) => [
  ...offerIf(pattern.fire === "reach" && !pattern.repeat, "… and again and again while it is held", () => ({
    ...pattern,
    repeat: { every: "12f" },
  })),
  ...offerIf(pattern.fire === "release" && pattern.max === undefined, "… and no longer than so much", () => ({
    ...pattern,
    max: "90f",
  })),
  ...offerCancel(pattern, kit, [pattern.control]),
];
