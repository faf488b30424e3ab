import { atMost, clause, count, nameList, words } from "../../kit/sentence";
import { freeControl, offerIf, type DescribeKind, type OfferKind } from "../describeParts";

export const describeMash: DescribeKind<"mash"> = pattern => [
  words(" when "),
  ...nameList("control", pattern.controls, ["controls"], "control", "or", 1),
  words(" is pressed "),
  count(pattern.count, ["count"], "number of presses", 1),
  words(pattern.count === 1 ? " time within " : " times within "),
  atMost(pattern.within, ["within"], "time for all presses", 1),
  ...(pattern.alternate ? clause(["alternate"], [words(", never the same one twice running")]) : []),
];

export const offerMash: OfferKind<"mash"> = (pattern, kit) => {
  const id = freeControl(kit, pattern.controls);
  return [
    ...offerIf(id !== undefined && !pattern.controls.includes(id), "… or one more button", () => ({
      ...pattern,
      controls: [...pattern.controls, id!],
    })),
    ...offerIf(
      !pattern.alternate && pattern.controls.length > 1,
      "… never the same one twice running",
      () => ({
        ...pattern,
        alternate: true,
      }),
    ),
  ];
};
