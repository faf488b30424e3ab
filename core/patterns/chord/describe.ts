import { atLeast, atMost, nameList, optional, words } from "../../kit/sentence";
import { freeControl, offerIf, type DescribeKind, type OfferKind } from "../describeParts";

export const describeChord: DescribeKind<"chord"> = pattern => [
  words(" when "),
  ...nameList("control", pattern.controls, ["controls"], "control", "and", 2),
  words(" are down together"),
  ...optional(pattern.spread, ["spread"], spread => [
    words(", pressed within "),
    atMost(spread, ["spread"], "spread of the presses"),
    words(" of each other"),
  ]),
  ...optional(pattern.for, ["for"], held => [
    words(", and held for "),
    atLeast(held, ["for"], "held together for"),
  ]),
];

export const offerChord: OfferKind<"chord"> = (pattern, kit) => {
  const id = freeControl(kit, pattern.controls);
  return [
    ...offerIf(id !== undefined && !pattern.controls.includes(id), "… with one more button", () => ({
      ...pattern,
      controls: [...pattern.controls, id!],
    })),
    ...offerIf(pattern.spread === undefined, "… pressed close to each other", () => ({
      ...pattern,
      spread: "4f",
    })),
    ...offerIf(pattern.for === undefined, "… and held for a while", () => ({ ...pattern, for: "12f" })),
  ];
};
