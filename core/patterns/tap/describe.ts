import { atMost, control, words } from "../../kit/sentence";
import type { DescribeKind, OfferKind } from "../describeParts";

export const describeTap: DescribeKind<"tap"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is tapped: let go within "),
  atMost(pattern.max, ["max"], "longest tap", 1),
];

export const offerTap: OfferKind<"tap"> = () => [];
