import { nanoid } from "nanoid";
import { redirect } from "react-router";
import type { Kit, Take } from "#core";
import { freshId } from "../edits/edits";
import {
  listKits,
  listTakes,
  readKit,
  removeKit,
  writeKit,
  writeTakes,
  type KitExtras,
} from "../storage/library";
import { closeKit, saveNow, workbench } from "./workbench";

/** What can be done to the shelf. Documents have been read and found sound before they come here. */
export type ShelfChange =
  | {
      readonly does: "add";
      readonly kit: Kit;
      readonly takes: readonly Take[];
      readonly open: boolean;
      readonly change: string;
      readonly extras?: KitExtras;
    }
  | { readonly does: "add-take"; readonly kitId: string; readonly take: Take }
  | { readonly does: "delete"; readonly kitId: string };

/** A kit with an id no other kit on the shelf has; one that comes again stands beside the first under a new name. */
async function makeRoom(kit: Kit): Promise<Kit> {
  const kits = await listKits();
  const ids = new Set(kits.map(record => record.id));
  if (!ids.has(kit.id)) return kit;
  const names = new Set(kits.map(record => record.kit.name));
  let n = 2;
  while (names.has(`${kit.name} ${n}`)) n++;
  return { ...kit, id: freshId(kit.id, ids), name: names.has(kit.name) ? `${kit.name} ${n}` : kit.name };
}

async function addTakeTo(kitId: string, take: Take): Promise<void> {
  const kept = (await listTakes(kitId)).map(item => item.take);
  const taken = new Set(kept.map(item => item.id));
  const added = { ...take, id: taken.has(take.id) ? nanoid(8) : take.id, kit: kitId };
  await writeTakes(kitId, [...kept, added], kept);
  if (workbench.getState().kit?.id === kitId) closeKit();
}

/** Carries out a change of the shelf. */
export async function changeShelf(change: ShelfChange) {
  await saveNow();
  switch (change.does) {
    case "add": {
      const kit = await makeRoom(change.kit);
      await writeKit({ ...change.extras, id: kit.id, kit, changedAt: Date.now(), change: change.change });
      await writeTakes(
        kit.id,
        change.takes.map(take => ({ ...take, kit: kit.id })),
        [],
      );
      return change.open ? redirect(`/kit/${kit.id}/play`) : null;
    }
    case "add-take":
      await addTakeTo(change.kitId, change.take);
      return null;
    case "delete":
      if (await readKit(change.kitId)) await removeKit(change.kitId);
      if (workbench.getState().kit?.id === change.kitId) closeKit();
      return null;
  }
}
