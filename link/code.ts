/** Crockford's base 32: digits and letters without I, L, O and U, which are taken for others. */
const LETTERS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const LENGTH = 6;
const GROUP = 4;

/** Formats the six characters of a code in its two groups: "KQ4T-7M". */
const formatGroups = (letters: string) => `${letters.slice(0, GROUP)}-${letters.slice(GROUP)}`;

/**
 * Creates a code from chance: `draw(n)` returns a whole number from 0 to n − 1. The codes of links are secrets, so the
 * chance must be one that cannot be guessed.
 */
export function createCode(draw: (below: number) => number): string {
  return formatGroups(Array.from({ length: LENGTH }, () => LETTERS[draw(LETTERS.length)]).join(""));
}

/**
 * Parses a code as a person types it: in any case, with or without dashes and spaces, O for 0, I and L for 1. Returns
 * it as it is displayed; undefined if it is none.
 */
export function parseCode(typed: string): string | undefined {
  const letters = typed.toUpperCase().replace(/[\s-]/g, "").replace(/O/g, "0").replace(/[IL]/g, "1");
  const isCode = letters.length === LENGTH && [...letters].every(letter => LETTERS.includes(letter));
  return isCode ? formatGroups(letters) : undefined;
}
