import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { applyLayout, layoutOf } from "../edits/layoutEdits";
import { isBroken } from "../storage/records";
import { documentOf } from "../storage/shelf";
import { createBrowser, openKit, openTab, until, type TestTab } from "../tests/testWorld";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
};

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  kit: "k",
  rate: 60,
  frames: 60,
  lanes: {
    a: [
      [5, 1],
      [40, 0],
    ],
  },
};

const RUNNER = {
  kind: "runner",
  tilePx: 32,
  level: ["@", "#"],
  run: { left: "a", right: "a", speed: 6, accel: 60 },
  fall: { up: 50, down: 70, most: 20 },
  height: { by: "fixed" },
  gates: {},
};

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, [TAKE]);
});

const state = () => tab.workbench.getState();
const lengthIn = (kit: Kit | undefined) => (kit?.patterns[0] as { for?: string } | undefined)?.for;
const lengthNow = () => lengthIn(state().kit);
const setLength = (frames: number, of: TestTab = tab) =>
  of.workbench.editKit("length", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, for: `${frames}f` } as Kit["patterns"][number]],
  }));

test("hundreds of edits are undone one by one, over kit and takes alike", () => {
  for (let n = 1; n <= 300; n++) setLength(n);
  tab.workbench.removeTake("t");
  tab.workbench.undo();
  expect(state().takes).toEqual([TAKE]);
  for (let n = 0; n < 300; n++) tab.workbench.undo();
  expect(lengthNow()).toBe("10f");
  tab.workbench.redo();
  expect(lengthNow()).toBe("1f");
});

test("a gesture is one step of undo, however many edits it makes", () => {
  const step = tab.workbench.beginStep();
  for (const frames of [11, 12, 13]) step.run(() => setLength(frames));
  step.end();
  expect(lengthNow()).toBe("13f");
  tab.workbench.undo();
  expect(lengthNow()).toBe("10f");
});

test("a cancelled gesture changes nothing, and undo and redo are as before", () => {
  setLength(20);
  tab.workbench.undo();
  const step = tab.workbench.beginStep();
  step.run(() => setLength(30));
  step.run(() => setLength(31));
  step.cancel();
  expect(lengthNow()).toBe("10f");
  expect(tab.workbench.history.getState().pastStates.length).toBe(0);
  tab.workbench.redo();
  expect(lengthNow()).toBe("20f");
});

test("the last change is the one that the document has: undo, redo and cancelling restore its words", () => {
  const edited = (what: string, frames: number) =>
    tab.workbench.editKit(
      what,
      kit => ({ ...kit, patterns: [{ ...kit.patterns[0]!, for: `${frames}f` }] }) as Kit,
    );
  edited("first", 12);
  edited("second", 13);
  tab.workbench.undo();
  expect(state().change).toBe("first");
  tab.workbench.redo();
  expect(state().change).toBe("second");
  const step = tab.workbench.beginStep();
  step.run(() => edited("tried", 20));
  expect(state().change).toBe("tried");
  step.cancel();
  expect(state().change).toBe("second");
});

test("the shelf has no result of checks from a change until they are judged again", async () => {
  const SUM = { asked: 3, holds: 2, vacuous: 0 };
  const kept = async () => {
    await tab.workbench.flush();
    const read = await tab.library.readKit("k");
    return read && !isBroken(read) ? read.record.checkTally : "broken";
  };
  const judge = async () => {
    tab.workbench.keepCheckTally(SUM);
    expect(await kept()).toEqual(SUM);
  };
  await judge();
  setLength(12);
  expect(await kept()).toBeUndefined();
  await judge();
  tab.workbench.undo();
  expect(await kept()).toBeUndefined();
  await judge();
  const step = tab.workbench.beginStep();
  step.run(() => setLength(20));
  tab.workbench.keepCheckTally({ asked: 3, holds: 0, vacuous: 0 });
  step.cancel();
  expect(await kept()).toBeUndefined();
  await judge();
  tab.workbench.editLayouts("layouts", () => [layoutOf(state().kit!, "l", "Keys")]);
  expect(await kept()).toEqual(SUM);
});

test("undoing a recording opens the take that is left; without any, none is open", () => {
  tab.workbench.addTake({ ...TAKE, id: "t2", name: "Second" });
  expect(state().openTakeId).toBe("t2");
  tab.workbench.undo();
  expect(state().openTakeId).toBe("t");
  tab.workbench.redo();
  tab.workbench.removeTake("t2");
  expect(state().openTakeId).toBe("t");
  tab.workbench.removeTake("t");
  expect(state().openTakeId).toBeUndefined();
  tab.workbench.undo();
  expect(state().openTakeId).toBe("t");
});

test("putting back restores exactly what was removed, whatever was done since", () => {
  const gone = tab.workbench.removeTake("t")!;
  setLength(25);
  tab.workbench.addTake({ ...TAKE, id: "t2", name: "Second" });
  tab.workbench.putBack("put back", gone);
  expect([lengthNow(), state().takes.map(take => take.id)]).toEqual(["25f", ["t", "t2"]]);
  tab.workbench.putBack("put back", gone);
  expect(state().takes.length).toBe(2);
  tab.workbench.undo();
  expect(state().takes.map(take => take.id)).toEqual(["t2"]);
});

test("a variant stores the current rules, can be restored, deleted and put back", () => {
  tab.workbench.keepVariant("v", "Variant 1");
  setLength(30);
  tab.workbench.takeUpVariant("v");
  expect(lengthNow()).toBe("10f");
  tab.workbench.undo();
  expect(lengthNow()).toBe("30f");
  tab.workbench.removeVariant("v");
  expect(state().variants).toEqual([]);
  tab.workbench.undo();
  expect(state().variants.map(variant => variant.name)).toEqual(["Variant 1"]);
});

test("layouts are a step of undo, the order of rows is none", () => {
  tab.workbench.editLayouts("kept", () => [layoutOf(KIT, "l", "Mine")]);
  tab.workbench.updateKitSettings(settings => ({ ...settings, folded: ["gates"] }));
  tab.workbench.undo();
  expect(state().layouts).toEqual([]);
  expect(state().settings.folded).toEqual(["gates"]);
  const other = { ...layoutOf(KIT, "l", "Mine"), bindings: { a: [["pad:0"]] } };
  tab.workbench.editKit("put on", kit => applyLayout(kit, other));
  expect(state().kit!.controls[0]!.bindings).toEqual([["pad:0"]]);
});

test("a kit with a fault keeps its last valid rules, and lists its faults", () => {
  const good = tab.evaluation.getState().rules;
  tab.workbench.editKit("broken", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, control: "gone" } as Kit["patterns"][number]],
  }));
  const broken = tab.evaluation.getState();
  expect([broken.rules, broken.isSound]).toEqual([good, false]);
  expect(broken.faults[0]).toMatchObject({ code: "unknown-id", path: ["patterns", 0, "control"] });
  tab.workbench.editKit("staged", kit => ({
    ...kit,
    patterns: KIT.patterns,
    stage: { kind: "runner", tilePx: 32 },
  }));
  expect(tab.evaluation.getState().faults.map(issue => issue.path.join("."))).toContain("stage.level");
});

test("opening A, B and A again at once ends with A, and edits made while B was loading are stored", async () => {
  const other = { ...KIT, id: "other", name: "Other" };
  await tab.shelf.add({ kit: other, takes: [], variants: [], layouts: [], checks: [] }, "new");
  const toOther = tab.workbench.open("other");
  setLength(17);
  const back = tab.workbench.open("k");
  expect(await Promise.all([toOther, back])).toEqual(["overtaken", "opened"]);
  expect([state().kit!.id, lengthNow()]).toEqual(["k", "17f"]);
  setLength(18);
  await tab.workbench.open("other");
  expect(state().kit!.id).toBe("other");
  await tab.workbench.open("k");
  expect(lengthNow()).toBe("18f");
});

test("missing and unreadable kits are distinguished", async () => {
  expect(await tab.workbench.open("nowhere")).toBe("missing");
  expect(state().kit!.id).toBe("k");
  const opened = await tab.workbench.open("k");
  expect(typeof opened === "object" && isBroken(opened)).toBe(false);
});

test("a kit is not called missing while the storage has not been read; it opens when it answers", async () => {
  const browser = createBrowser();
  const first = openTab(browser);
  await first.shelf.add(documentOf({ ...KIT, id: "slow" }), "new");
  let answer = () => {};
  const lock = new Promise<void>(resolve => (answer = resolve));
  void browser.locks.request("moss-tap-storage", () => lock);
  const second = openTab(browser);
  const opening = second.workbench.open("slow");
  await until(() => {
    second.timers.pass(500);
    return second.storage.getState().trouble === "slow";
  });
  expect(await opening).toBe("unread");
  answer();
  await until(() => second.storage.getState().trouble === undefined);
  expect(await second.workbench.open("slow")).toBe("opened");
});

test("an edit is written in the task in which it is made: a tab killed right after it loses nothing", async () => {
  const twin = openTab(tab.browser);
  setLength(42);
  await until(() => tab.library.status.getState().trouble === undefined);
  const kept = await twin.library.readKit("k");
  expect(kept && !isBroken(kept) && lengthIn(kept.document.kit)).toBe("42f");
});

test("an edit that could not be read back is refused with a sentence, and nothing changes", () => {
  const before = state().kit;
  for (const [edit, words] of [
    [(kit: Kit) => ({ ...kit, name: "n".repeat(5000) }), /name has 5000 letters, more than the 200/],
    [(kit: Kit) => ({ ...kit, rate: Infinity }), /rate Infinity is not a rate/],
    [
      (kit: Kit) => ({ ...kit, stage: { ...RUNNER, level: Array(1_000_000).fill("#") } }),
      /a level of 1000000 rows, 1 tile wide/,
    ],
  ] as const) {
    expect(tab.workbench.editKit("too much", edit)).toBeUndefined();
    expect(state().kit).toBe(before);
    expect(tab.notices.store.getState().at(-1)).toMatchObject({
      title: "Nothing was changed.",
      details: [expect.stringMatching(words)],
    });
  }
  expect(tab.workbench.history.getState().pastStates).toEqual([]);
});
