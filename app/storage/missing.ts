import { dequal } from "dequal/lite";

/** An item stored beside a kit. */
interface Item {
  readonly id: string;
  readonly name: string;
}

/** Returns an item without its id and the kit it names. */
const bare = (item: Item) => ({ ...item, id: "", kit: undefined });

/**
 * Returns the items that a list lacks, compared by content without ids. Only items of the same name are
 * compared.
 */
export function listMissing<T extends Item>(items: readonly T[], there: readonly T[]): T[] {
  const named = new Map<string, T[]>();
  for (const item of there) {
    const alike = named.get(item.name);
    if (alike) alike.push(item);
    else named.set(item.name, [item]);
  }
  return items.filter(item => !named.get(item.name)?.some(other => dequal(bare(other), bare(item))));
}
