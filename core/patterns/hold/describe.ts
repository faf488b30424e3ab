import { atLeast, atMost, choice, control, words } from "../../kit/sentence";
import { describeCancel, FIRE_ON_REACH, type DescribeKind } from "../describeParts";

export const describeHold: DescribeKind<"hold"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is held for "),
  atLeast(pattern.for, ["for"], "length of the hold"),
  ...(pattern.max === undefined
    ? []
    : [words(" and no longer than "), atMost(pattern.max, ["max"], "longest hold", 1)]),
  words(", "),
  choice(pattern.fire, FIRE_ON_REACH, ["fire"], "when it fires"),
  ...(pattern.repeat
    ? [words(", and again every "), atLeast(pattern.repeat.every, ["repeat", "every"], "repeat every", 1)]
    : []),
  ...describeCancel(pattern.cancel),
];
