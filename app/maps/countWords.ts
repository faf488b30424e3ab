/** Formats a count: "1 press", "12 presses". */
function formatCount(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** Formats the beginning of a map's caption: "12 presses in 4 takes: ". */
export function formatFound(count: number, one: string, many: string, takes: number): string {
  return `${formatCount(count, one, many)} in ${formatCount(takes, "take", "takes")}: `;
}
