/** Returns the commas, periods and similar marks with which a text begins; empty if it begins with none. */
export const leadingMarks = (text: string): string => /^[,.;:?!)]*/.exec(text)![0];
