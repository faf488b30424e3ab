/** The length of an id made from a name; a number behind it still fits the bound of ids. */
const MAX_LETTERS = 60;

/** Returns an id made from a name: lower case, words joined by hyphens, with a number if it is taken. */
export function freshId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .slice(0, MAX_LETTERS)
      .replace(/^-|-$/g, "") || "rule";
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}

/** Returns a name that is not taken: the given one, or with a number behind it, from 2. */
export function freshName(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(name)) return name;
  let n = 2;
  while (taken.has(`${name} ${n}`)) n++;
  return `${name} ${n}`;
}
