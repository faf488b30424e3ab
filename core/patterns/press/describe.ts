import { atLeast, control, words } from "../../kit/sentence";
import type { DescribeKind } from "../describeParts";

export const describePress: DescribeKind<"press"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is pressed"),
  ...(pattern.repeat
    ? [
        words(", and while it is held again after "),
        atLeast(pattern.repeat.after, ["repeat", "after"], "first repeat after"),
        words(", then every "),
        atLeast(pattern.repeat.every, ["repeat", "every"], "repeat every", 1),
      ]
    : []),
];
