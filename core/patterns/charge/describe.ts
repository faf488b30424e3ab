import { atLeast, atMost, choice, control, words, type Option } from "../../kit/sentence";
import { describeCancel, type DescribeKind } from "../describeParts";

const FIRE: readonly Option[] = [
  { value: "release", label: "let go", hint: "the longer it was held the more it gives" },
  { value: "full", label: "full", hint: "only a full charge counts; let go sooner and it is nothing" },
  { value: "either", label: "let go or full", hint: "whichever comes first" },
];

export const describeCharge: DescribeKind<"charge"> = pattern => [
  words(" while "),
  control(pattern.control, ["control"]),
  words(" is held charges"),
  ...(pattern.from === undefined
    ? []
    : [words(" from "), atLeast(pattern.from, ["from"], "charging begins after")]),
  words(" to full at "),
  atLeast(pattern.full, ["full"], "full charge after", 1),
  words(", and fires when "),
  choice(pattern.fire, FIRE, ["fire"], "when it fires"),
  ...(pattern.min === undefined
    ? []
    : [words(", not before "), atLeast(pattern.min, ["min"], "shortest charge")]),
  ...(pattern.levels ?? []).flatMap((level, k) => [
    words(k === 0 ? `; ${level.name} at ` : `, ${level.name} at `),
    atLeast(level.at, ["levels", k, "at"], `level ${level.name} at`),
  ]),
  ...(pattern.limit === undefined
    ? []
    : [words("; lost past "), atMost(pattern.limit, ["limit"], "charge is lost past", 1)]),
  ...describeCancel(pattern.cancel),
];
