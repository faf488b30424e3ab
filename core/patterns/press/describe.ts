import { atLeast, control, optional, words } from "../../kit/sentence";
import { offerIf, type DescribeKind, type OfferKind } from "../describeParts";

export const describePress: DescribeKind<"press"> = pattern => [
  words(" when "),
  control(pattern.control, ["control"]),
  words(" is pressed"),
  ...optional(pattern.repeat, ["repeat"], repeat => [
    words(", and while it is held again after "),
    atLeast(repeat.after, ["repeat", "after"], "first repeat after"),
    words(", then every "),
    atLeast(repeat.every, ["repeat", "every"], "repeat every", 1),
  ]),
];

export const offerPress: OfferKind<"press"> = pattern =>
  offerIf(!pattern.repeat, "… and again while it is held", () => ({
    ...pattern,
    repeat: { after: "18f", every: "6f" },
  }));
