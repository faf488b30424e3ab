import { atMost, control, count, enumerate, words } from "../../kit/sentence";
import type { DescribeKind } from "../describeParts";

export const describeMash: DescribeKind<"mash"> = pattern => [
  words(" when "),
  ...enumerate(
    pattern.controls.map((id, k) => control(id, ["controls", k])),
    "or",
  ),
  words(" is pressed "),
  count(pattern.count, ["count"], "number of presses", 1),
  words(" times within "),
  atMost(pattern.within, ["within"], "time for all presses", 1),
  words(pattern.alternate ? ", never the same one twice running" : ""),
];
