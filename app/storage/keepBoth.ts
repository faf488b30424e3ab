import { dequal } from "dequal/lite";
import { nanoid } from "nanoid";
import { freeName } from "../edits/takeNames";
import type { Database } from "./database";
import { commitWrite, type KitWrite } from "./kitWrite";
import { isBroken, parseKitRecord, unpackPart, type PartRecord, type Variant } from "./records";

const FROM = "from another tab";

/**
 * Resolves a write conflict: the shelf keeps the other tab's version, and this write's version is kept beside
 * it, the rules as a variant, changed takes and layouts under new names. Returns the number of copies kept; 0
 * if both versions are equal.
 */
export async function keepBoth(
  db: Database,
  write: KitWrite,
  yieldToUi: () => Promise<void>,
): Promise<number> {
  const kept = parseKitRecord(await db.get("kits", write.kitId));
  if (isBroken(kept) || !write.record) return 0;
  const packed = await db.getAllFromIndex("parts", "byKit", write.kitId);
  const theirs = await Promise.all(packed.map(part => unpackPart(part, yieldToUi)));
  const named = theirs.map(({ value }) => value as { readonly name: string });
  const nameCopy = (name: string) => {
    const free = freeName(named, `${name}, ${FROM}`);
    named.push({ name: free });
    return free;
  };
  const put: PartRecord[] = write.put.flatMap(part => {
    const other = theirs.find(item => item.list === part.list && item.id === part.id);
    if (other && dequal(other.value, part.value)) return [];
    if (!other) return [part];
    const value = part.value as { readonly name: string };
    const id = nanoid(8);
    return [{ ...part, id, value: { ...value, id, name: nameCopy(value.name) } }];
  });
  if (write.hasNewRules && !dequal(kept.kit, write.record.kit)) {
    const id = nanoid(8);
    const variant: Variant = { id, name: nameCopy(write.record.kit.name), kit: write.record.kit };
    put.push({ kitId: write.kitId, list: "variants", id, value: variant });
  }
  if (put.length === 0) return 0;
  const order = { ...kept.order };
  for (const { list, id } of put) order[list] = [...(order[list] ?? []), id];
  // The checks have not been judged with what is added.
  const { version, checkTally: _checkTally, ...record } = kept;
  const { kitId } = write;
  await commitWrite(db, {
    kitId,
    base: version,
    record: { ...record, order },
    hasNewRules: false,
    put,
    drop: [],
  });
  return put.length;
}
