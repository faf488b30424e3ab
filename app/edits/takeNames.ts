import type { Take } from "#core";

/** Returns a name that no item of a list has: the wanted one, or with a number: "Written hands 2". */
export function freeName(items: readonly { readonly name: string }[], searched: string): string {
  const used = new Set(items.map(({ name }) => name));
  if (!used.has(searched)) return searched;
  let n = 2;
  while (used.has(`${searched} ${n}`)) n++;
  return `${searched} ${n}`;
}

/**
 * Returns the number of a kit's next recording: above every number given before, including deleted and undone
 * takes. `last` is the number given last, undefined if none was.
 */
export function nextTakeNumber(takes: readonly Pick<Take, "name">[], last = 0): number {
  const numbers = takes.map(({ name }) => Number(/^Take (\d{1,9})$/.exec(name)?.[1] ?? 0));
  return Math.max(last, takes.length, ...numbers) + 1;
}
