import { beforeEach, expect, test } from "vitest";
import type { Check, Kit, Layout, Mapping, Take } from "#core";
import type { ReadFile } from "#handover";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";
import { takeInHere } from "./takeInHere";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
};
const take = (id: string, name = id, kit = "k"): Take => {
  return { format: "moss-tap/take", version: 1, id, name, kit, rate: 60, frames: 60, lanes: { a: [[3, 1]] } };
};
const LAYOUT: Layout = { format: "moss-tap/layout", version: 1, id: "l", name: "Left", bindings: {} };
const CHECK: Check = { id: "c", name: "Holds", on: "*", never: { kind: "fired", id: "h" } };
const ASSIST = { id: "slow", name: "More time", windows: 150 };
const taken = (item: Take): ReadFile => ({ kind: "take", name: `${item.id}.json`, take: item });

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, [take("t", "There")]);
});
const state = () => tab.workbench.getState();

test("imports are one step of undo with the first take open; existing items are not duplicated", async () => {
  const lines = takeInHere(tab.workbench, [
    taken(take("t", "New under an old id")),
    taken(take("other", "There")),
    taken({ ...take("far", "Far", "elsewhere"), lanes: { wheel: [[1, 1]] } }),
    { kind: "layout", name: "l.json", layout: LAYOUT },
    {
      kind: "checks",
      name: "c.json",
      checks: { format: "moss-tap/checks", version: 1, id: "cs", name: "Checks", checks: [CHECK] },
    },
    {
      kind: "assists",
      name: "a.json",
      assists: { format: "moss-tap/assists", version: 1, id: "as", name: "Helps", assists: [ASSIST] },
    },
    { kind: "variant", name: "slow.json", kit: { ...KIT, rate: 30, name: "Slow" } },
    { kind: "variant", name: "far.json", kit: { ...KIT, id: "far", name: "Far rules" } },
    { kind: "kit", name: "k.json", kit: { ...KIT, name: "Another" } },
    { kind: "refused", name: "x.json", reasons: ["no", "no"] },
    { kind: "passed", name: "y.json", why: "a trace" },
  ]);
  expect(lines.map(({ name, isTaken, words }) => `${isTaken ? "+" : "−"} ${name}: ${words}`)).toEqual([
    "+ New under an old id: is with the kit",
    "− There: was there already",
    "+ Far: was recorded for elsewhere; k has no wheel: no rule sees those presses",
    "+ Left: is with the kit",
    "+ Checks: 1 check added to the kit",
    "+ Helps: 1 assist added to the kit",
    "+ Slow: is among the variants",
    "− Far rules: a variant of another kit: drop its pack on the shelf",
    "− Another: a kit of its own: drop it on the shelf",
    "− x.json: no; no",
    "− y.json: a trace",
  ]);
  const { takes, layouts, checks, openTakeId } = state();
  expect(takes.map(({ name }) => name)).toEqual(["There", "New under an old id", "Far"]);
  expect(new Set(takes.map(({ id }) => id)).size).toBe(3);
  expect(openTakeId).toBe(takes[1]!.id);
  expect([layouts, checks]).toEqual([[LAYOUT], [CHECK]]);
  expect(state().kit?.assists).toEqual([ASSIST]);
  expect(state().variants).toMatchObject([{ name: "Slow", kit: { ...KIT, rate: 30 } }]);
  const again: ReadFile = { kind: "variant", name: "slow.json", kit: { ...KIT, rate: 30, name: "Slow" } };
  expect(takeInHere(tab.workbench, [again])).toMatchObject([{ isTaken: false, words: "was there already" }]);
  tab.workbench.undo();
  expect(state().kit).toEqual(KIT);
  expect(state()).toMatchObject({ takes: [take("t", "There")], variants: [], layouts: [], checks: [] });
  expect(state().settings.mappings).toBeUndefined();
  await until(() => state().holder === "ours");
});

test("a mapping that comes in is remembered with the kit, once", () => {
  const mapping: Mapping = {
    format: "moss-tap/mapping",
    version: 1,
    sort: "frames",
    rate: 60,
    controls: { J: "a" },
  };
  for (const rate of [60, 30, 60])
    takeInHere(tab.workbench, [{ kind: "mapping", name: "m.json", mapping: { ...mapping, rate } }]);
  expect(state().settings.mappings?.map(({ rate }) => rate)).toEqual([60, 30]);
});

test("importing nothing new changes nothing, and a tab that may not edit refuses each document", () => {
  expect(takeInHere(tab.workbench, [taken(take("again", "There"))])[0]).toMatchObject({ isTaken: false });
  tab.workbench.undo();
  expect(state().takes).toHaveLength(1);
  const refused = [{ name: "New", isTaken: false, words: "the kit could not be changed in this tab" }];
  for (const closed of [{ mayEdit: () => false }, { edit: () => undefined }])
    expect(takeInHere({ ...tab.workbench, ...closed }, [taken(take("n", "New"))])).toEqual(refused);
});
