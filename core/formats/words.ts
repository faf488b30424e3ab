/** Returns a count with its noun, singular for one: "1 step", "3 steps". */
export function countWords(count: number, noun: string, plural = `${noun}s`): string {
  return `${count} ${count === 1 ? noun : plural}`;
}

/** Returns how often something happened: "never", "once", "3 times". */
export function timesWords(count: number): string {
  if (count === 0) return "never";
  return count === 1 ? "once" : `${count} times`;
}

const LIST = new Intl.ListFormat("en-GB");

/** Joins names: "Chime", "Chime and Toll", "Chime, Toll and Peal". */
export function joinNames(names: readonly string[]): string {
  return LIST.format(names);
}

/** Formats a number with at most two decimals. */
export function roundTwo(value: number): string {
  return String(Number(value.toFixed(2)));
}

/** Truncates a text to a number of characters, with an ellipsis. */
export function cutLetters(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
}
