/** The arrow of each direction digit, arranged as on a number pad; the centre is a dot. */
const DIGIT_ARROWS = ["", "↙", "↓", "↘", "←", "·", "→", "↖", "↑", "↗"] as const;

/** Returns the arrow of a direction digit, 1 to 9; an empty string for any other number. */
export function arrowOf(digit: number): string {
  return DIGIT_ARROWS[digit] ?? "";
}
