import { atLeast, atMost, control, enumerate, words } from "../../kit/sentence";
import type { DescribeKind } from "../describeParts";

export const describeChord: DescribeKind<"chord"> = pattern => [
  words(" when "),
  ...enumerate(pattern.controls.map((id, k) => control(id, ["controls", k]))),
  words(" are down together"),
  ...(pattern.spread === undefined
    ? []
    : [
        words(", pressed within "),
        atMost(pattern.spread, ["spread"], "spread of the presses"),
        words(" of each other"),
      ]),
  ...(pattern.for === undefined
    ? []
    : [words(", and held for "), atLeast(pattern.for, ["for"], "held together for")]),
];
