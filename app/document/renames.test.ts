import { expect, test } from "vitest";
import type { Kit, Mapping } from "#core";
import { DEFAULT_SETTINGS, type KitSettings } from "../storage/records";
import { openKit, openTab } from "../tests/testWorld";
import { renameId } from "../edits/renameId";
import { findRename, renameInSettings } from "./renames";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "named",
  name: "Named",
  rate: 60,
  controls: ["a", "b"].map(id => ({ id, name: id.toUpperCase(), bindings: [] })),
  gates: [{ id: "g", name: "Ground" }],
  patterns: [
    { id: "p", name: "P", kind: "tap", control: "a", max: "4f" },
    { id: "q", name: "Q", kind: "hold", control: "a", for: "9f", fire: "reach" },
  ],
  moves: [{ id: "m", name: "M", pattern: "p" }],
};

const MAPPING: Mapping = {
  format: "moss-tap/mapping",
  version: 1,
  sort: "frames",
  rate: 60,
  controls: { "Stick X": "b", Fire: "a" },
  below: { "Stick X": "a" },
  gates: { floor: "g" },
  performs: { anim: "m" },
};

const SETTINGS: KitSettings = {
  ...DEFAULT_SETTINGS,
  order: ["controls:a", "gates:a", "moves:m", "game:m"],
  hand: {
    lines: [{ control: "a", for: "3f", after: "9f", gate: "g", turns: "open", isEachTime: false }],
    seed: 1,
    unevenFrames: 0,
  },
  mappings: [MAPPING as NonNullable<KitSettings["mappings"]>[number]],
  wanted: ["dead a p q"],
};

test("settings follow the id of a control, a gate, a move or a pattern, and nothing of the same id in other lists", () => {
  const a = renameInSettings(SETTINGS, { list: "controls", from: "a", to: "leap" });
  expect(a.order).toEqual(["controls:leap", "gates:a", "moves:m", "game:m"]);
  expect(a.hand!.lines[0]).toMatchObject({ control: "leap", gate: "g" });
  expect(a.mappings![0]).toMatchObject({
    controls: { "Stick X": "b", Fire: "leap" },
    below: { "Stick X": "leap" },
  });
  expect(a.wanted).toEqual(["dead leap p q"]);
  const g = renameInSettings(SETTINGS, { list: "gates", from: "g", to: "ground" });
  expect([g.hand!.lines[0]!.gate, g.mappings![0]!.gates]).toEqual(["ground", { floor: "ground" }]);
  const m = renameInSettings(SETTINGS, { list: "moves", from: "m", to: "hop" });
  expect([m.order.slice(2), m.mappings![0]!.performs]).toEqual([["moves:hop", "game:hop"], { anim: "hop" }]);
  expect(renameInSettings(SETTINGS, { list: "patterns", from: "p", to: "z" }).wanted).toEqual(["dead a q z"]);
  expect(renameInSettings(SETTINGS, { list: "prompts", from: "a", to: "z" })).toBe(SETTINGS);
});

test("another name, an item more, or several ids at once is no renaming", () => {
  const [a, b] = KIT.controls;
  const withControls = (...controls: Kit["controls"]) => ({ ...KIT, controls });
  expect(findRename(KIT, withControls({ ...a!, id: "c" }, b!))).toEqual({
    list: "controls",
    from: "a",
    to: "c",
  });
  for (const other of [
    withControls({ ...a!, id: "c", name: "C" }, b!),
    withControls(a!),
    withControls({ ...a!, id: "c" }, { ...b!, id: "d" }),
    withControls({ ...a!, name: "C" }, b!),
  ])
    expect(findRename(KIT, other)).toBeUndefined();
});

test("the scripted player keeps its control through a renaming, its undo and its redo", async () => {
  const tab = openTab();
  await openKit(tab, KIT, []);
  const { workbench } = tab;
  workbench.updateKitSettings(() => SETTINGS);
  const controlOf = () => workbench.getState().settings.hand!.lines[0]!.control;
  workbench.edit("an id", document => renameId(document, "controls", "a", "leap"));
  expect(controlOf()).toBe("leap");
  workbench.undo();
  expect(controlOf()).toBe("a");
  expect(workbench.getState().settings).toEqual(SETTINGS);
  workbench.redo();
  expect(controlOf()).toBe("leap");
});
