/** The arrow of each direction digit, laid out as on a number pad; the centre is a dot. */
const DIGIT_ARROWS = ["", "↙", "↓", "↘", "←", "·", "→", "↖", "↑", "↗"] as const;

/** The arrow of a direction digit, 1 to 9; empty for any other number. */
export function arrowOf(digit: number): string {
  return DIGIT_ARROWS[digit] ?? "";
}
