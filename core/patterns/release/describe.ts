import { control, words } from "../../kit/sentence";
import type { DescribeKind, OfferKind } from "../describeParts";

export const describeRelease: DescribeKind<"release"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is let go"),
];

export const offerRelease: OfferKind<"release"> = () => [];
