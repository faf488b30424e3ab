import { dequal } from "dequal/lite";

/** Something kept beside a kit. */
interface Item {
  readonly id: string;
  readonly name: string;
}

/** All that an item says but its id and the kit that it names. */
const bare = (item: Item) => ({ ...item, id: "", kit: undefined });

/** Those of some items that a list lacks, by all they say but their ids. Items of one name alone are held against each other. */
export function listMissing<T extends Item>(items: readonly T[], there: readonly T[]): T[] {
  const named = new Map<string, T[]>();
  for (const item of there) {
    const alike = named.get(item.name);
    if (alike) alike.push(item);
    else named.set(item.name, [item]);
  }
  return items.filter(item => !named.get(item.name)?.some(other => dequal(bare(other), bare(item))));
}
