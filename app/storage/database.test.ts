import { openDB } from "idb";
import { expect, test } from "vitest";
import { readFileSync } from "node:fs";
import { openTab } from "../tests/testWorld";
import { isBroken } from "./records";

const KIT = JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")) as { id: string };
const TAKES = ["clean-climb", "sloppy-climb"].map(
  name => JSON.parse(readFileSync(`e2e/belfry/${name}.json`, "utf8")) as { id: string },
);

/** Writes a database as version 1 of the application did. */
async function writeFirstVersion(name: string): Promise<void> {
  const db = await openDB(name, 1, {
    upgrade(made) {
      made.createObjectStore("kits", { keyPath: "id" });
      made.createObjectStore("takes", { keyPath: ["kitId", "takeId"] }).createIndex("byKit", "kitId");
    },
  });
  await db.put("kits", {
    id: KIT.id,
    kit: KIT,
    changedAt: 1_600_000_000_000,
    change: "a length",
    rows: { folded: ["gates"], order: ["control leap"] },
    variants: [{ id: "v", name: "Softer", kit: KIT }],
    layouts: [
      {
        format: "moss-tap/layout",
        version: 1,
        id: "l",
        name: "Left hand",
        bindings: { leap: [["key:KeyQ"]] },
      },
    ],
  });
  for (const [place, take] of [...TAKES].reverse().entries())
    await db.put("takes", { kitId: KIT.id, takeId: take.id, place: 1 - place, take });
  db.close();
}

test("a database of version 1 is upgraded with all of its contents, in order", async () => {
  const tab = openTab();
  await writeFirstVersion(tab.browser.databaseName);
  const kept = await tab.library.readKit(KIT.id);
  if (!kept || isBroken(kept)) throw new Error("the kit is not there");
  expect(kept.broken).toEqual([]);
  expect(kept.document.kit).toEqual(KIT);
  expect(kept.document.takes).toEqual(TAKES);
  expect(kept.document.variants.map(variant => variant.name)).toEqual(["Softer"]);
  expect(kept.document.layouts.map(layout => layout.name)).toEqual(["Left hand"]);
  expect(kept.record).toMatchObject({
    version: 1,
    changedAt: 1_600_000_000_000,
    change: "a length",
    rows: { folded: ["gates"], order: ["control leap"] },
  });
});

test("a write that version 1 left in localStorage is stored", async () => {
  const tab = openTab();
  await writeFirstVersion(tab.browser.databaseName);
  const left = { ...TAKES[0]!, name: "Left behind" };
  tab.browser.localStorage.setItem(
    "moss-tap-left-behind",
    JSON.stringify({
      kit: { id: KIT.id, kit: { ...KIT, name: "Renamed" }, changedAt: 5, change: "a name" },
      takes: [{ kitId: KIT.id, takeId: left.id, place: 0, take: left }],
      goneTakeIds: [TAKES[1]!.id],
    }),
  );
  const kept = await tab.library.readKit(KIT.id);
  expect(kept).toMatchObject({
    document: { kit: { name: "Renamed" }, takes: [{ name: "Left behind" }] },
  });
  expect(kept && !isBroken(kept) && kept.document.takes.length).toBe(1);
});
