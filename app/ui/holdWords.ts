/** Formats how many checks hold of those that are judged: "5 of 6 checks hold", "1 of 1 check holds". */
export const holdWords = (holds: number, asked: number): string =>
  `${holds} of ${asked} ${asked === 1 ? "check holds" : "checks hold"}`;
