import { countWords } from "#core";

/** The results of checks in sum: how many were asked, how many of those hold, and how many could not have failed. */
export interface CheckSum {
  readonly asked: number;
  readonly holds: number;
  /** Those in which nothing could have made them fail; they are not among `holds`. */
  readonly vacuous: number;
}

/** Formats how many checks hold of those that are judged: "5 of 6 checks hold", "1 of 1 check holds". */
export const holdWords = ({ holds, asked }: Pick<CheckSum, "holds" | "asked">): string =>
  `${holds} of ${asked} ${asked === 1 ? "check holds" : "checks hold"}`;

/** Formats how many checks nothing could have made fail, "1 check could not have failed"; empty if there are none. */
export const vacuousWords = ({ vacuous }: Pick<CheckSum, "vacuous">): string =>
  vacuous === 0 ? "" : `${countWords(vacuous, "check")} could not have failed`;

/** Returns the number that do not hold, without those that could not have failed. */
export const countFailing = ({ asked, holds, vacuous }: CheckSum): number => asked - holds - vacuous;

/** Returns the colour of a sum: of a loss if one fails, of neither if one could not have failed, or of success. */
export function holdColour(sum: CheckSum): string {
  if (countFailing(sum) > 0) return "text-foxglove";
  return sum.vacuous > 0 ? "text-soft" : "text-moss";
}
