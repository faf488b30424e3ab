import {
  atLeast,
  atMost,
  choice,
  clause,
  control,
  number,
  optional,
  text,
  words,
  type Option,
} from "../../kit/sentence";
import { describeCancel, offerCancel, offerIf, type DescribeKind, type OfferKind } from "../describeParts";

const FIRE: readonly Option[] = [
  { value: "release", label: "let go", hint: "the longer it was held the more it gives" },
  { value: "full", label: "full", hint: "only a full charge counts; let go sooner and it is nothing" },
  { value: "either", label: "let go or full", hint: "whichever comes first" },
];

/** The CSS names of easing curves. */
const CURVES: readonly Option[] = [
  { value: "linear", label: "a straight line", hint: "half the time gives half" },
  { value: "ease-in", label: "ease in", hint: "slow at first, most of it comes late" },
  { value: "ease-out", label: "ease out", hint: "quick at first, little is won by waiting" },
  { value: "ease-in-out", label: "ease in and out", hint: "slow at both ends" },
  { value: "ease", label: "ease", hint: "a quick start that settles" },
];

function curveOptions(curve: string): readonly Option[] {
  return CURVES.some(option => option.value === curve)
    ? CURVES
    : [...CURVES, { value: curve, label: "a curve of its own", hint: curve.slice(0, 60) }];
}

export const describeCharge: DescribeKind<"charge"> = pattern => [
  words(" while "),
  control(pattern.control, ["control"]),
  words(" is held charges"),
  ...optional(pattern.from, ["from"], from => [
    words(" from "),
    atLeast(from, ["from"], "charging begins after"),
  ]),
  words(" to full at "),
  atLeast(pattern.full, ["full"], "full charge after", 1),
  ...optional(pattern.curve, ["curve"], curve => [
    words(" along "),
    choice(curve, curveOptions(curve), ["curve"], "curve"),
  ]),
  ...optional(pattern.output, ["output"], ([low, high]) => [
    words(", worth "),
    number(low, ["output", 0], "worth when empty"),
    words(" to "),
    number(high, ["output", 1], "worth when full"),
  ]),
  words(", and fires when "),
  choice(pattern.fire, FIRE, ["fire"], "when it fires"),
  ...optional(pattern.min, ["min"], min => [
    words(", not before "),
    atLeast(min, ["min"], "shortest charge"),
  ]),
  ...(pattern.levels ?? []).flatMap((level, k) =>
    clause(
      ["levels", k],
      [
        words(k === 0 ? "; levels: " : ", "),
        text(level.name, ["levels", k, "name"], `name of level ${k + 1}`),
        words(" at "),
        atLeast(level.at, ["levels", k, "at"], `level ${level.name} at`),
      ],
    ),
  ),
  ...optional(pattern.limit, ["limit"], limit => [
    words("; lost past "),
    atMost(limit, ["limit"], "charge is lost past", 1),
  ]),
  ...describeCancel(pattern.cancel),
];

export const offerCharge: OfferKind<"charge"> = (pattern, kit) => {
  const levels = pattern.levels ?? [];
  return [
    ...offerIf(true, levels.length === 0 ? "… with levels on the way" : "… with one more level", () => ({
      ...pattern,
      levels: [...levels, { name: `level ${levels.length + 1}`, at: pattern.full }],
    })),
    ...offerIf(pattern.curve === undefined, "… along a curve", () => ({ ...pattern, curve: "ease-in" })),
    ...offerIf(pattern.output === undefined, "… worth so much in the game", () => ({
      ...pattern,
      output: [0, 100] as [number, number],
    })),
    ...offerIf(pattern.min === undefined, "… not before it was held a while", () => ({
      ...pattern,
      min: "6f",
    })),
    ...offerIf(pattern.from === undefined, "… and begin to charge only after a while", () => ({
      ...pattern,
      from: "6f",
    })),
    ...offerIf(pattern.limit === undefined, "… and lose it when held too long", () => ({
      ...pattern,
      limit: "180f",
    })),
    ...offerCancel(pattern, kit, [pattern.control]),
  ];
};
