import { countWords } from "#core";
import type { RequestCounts } from "./windowDots";

/** Formats the beginning of a map's caption: "12 presses in 4 takes: ". */
export function formatFound(count: number, one: string, many: string, takes: number): string {
  return `${countWords(count, one, many)} in ${countWords(takes, "take")}: `;
}

/**
 * Formats the requests that a map counts and does not draw: " · 3 lost for other reasons"; nothing if there are none. A number
 * and its word are on one line.
 */
export function formatUndrawn({ lostElsewhere, waiting }: RequestCounts): string {
  const lost = lostElsewhere > 0 ? ` · ${lostElsewhere}\u00a0lost for other reasons` : "";
  return waiting > 0 ? `${lost} · ${waiting}\u00a0still waiting` : lost;
}
