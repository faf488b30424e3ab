import { expect, test } from "vitest";
import type { Kit } from "#core";
import { NO_PARTS, DEFAULT_SETTINGS } from "../storage/records";
import type { KitChange } from "../storage/kitWrite";
import { createAutosave, type Written } from "./autosave";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [],
  patterns: [],
};

function open() {
  let now: Written = { kit: KIT, ...NO_PARTS, settings: DEFAULT_SETTINGS, change: "", checkTally: undefined };
  const written: (string | undefined)[] = [];
  const autosave = createAutosave(
    {
      library: {
        write: (change: KitChange) => {
          written.push(change.record?.kit.name);
          return Promise.resolve({ state: "written" });
        },
        setAside: () => undefined,
        forgetAside: () => undefined,
      },
      read: () => now,
      nowMs: () => 0,
      onConflict: () => Promise.resolve(),
    },
    now,
  );
  const rename = (name: string) => {
    now = { ...now, kit: { ...KIT, name } };
    autosave.touch();
  };
  return { autosave, written, rename };
}

test("an edit right after the writer became idle is written by the next flush", async () => {
  const { autosave, written, rename } = open();
  autosave.touch();
  rename("Edited");
  await autosave.flush();
  expect(written).toEqual(["Edited"]);
});

test("an edit made in the task in which a write has ended is written too", async () => {
  const { autosave, written, rename } = open();
  rename("One");
  await autosave.flush();
  rename("Two");
  await autosave.flush();
  rename("Three");
  rename("Four");
  await autosave.flush();
  expect(written).toEqual(["One", "Two", "Three", "Four"]);
});
