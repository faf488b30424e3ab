import { groupBy } from "#core";
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
  const named = groupBy(there, ({ name }) => name);
  return items.filter(item => !named.get(item.name)?.some(other => dequal(bare(other), bare(item))));
}
