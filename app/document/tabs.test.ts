import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { createBrowser, openKit, openTab, until, type TestBrowser, type TestTab } from "../tests/testWorld";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
};
const take = (id: string): Take => ({
  format: "moss-tap/take",
  version: 1,
  id,
  name: id,
  kit: "k",
  rate: 60,
  frames: 60,
  lanes: { a: [[5, 1]] },
});

let browser: TestBrowser;
let one: TestTab;
let two: TestTab;

beforeEach(async () => {
  browser = createBrowser();
  one = openTab(browser);
  two = openTab(browser);
  await openKit(one, KIT, [take("t")]);
  await two.workbench.open("k");
});

const state = (tab: TestTab) => tab.workbench.getState();
const rename = (tab: TestTab, name: string) => tab.workbench.editKit("a name", kit => ({ ...kit, name }));
const titles = (tab: TestTab) => tab.notices.store.getState().map(notice => notice.title);

test("one tab writes; the other follows, is refused edits with a reason, and keeps its position", async () => {
  expect([state(one).holder, state(two).holder]).toEqual(["ours", "theirs"]);
  rename(one, "Renamed");
  one.workbench.addTake(take("t2"));
  await until(() => state(two).kit?.name === "Renamed" && state(two).takes.length === 2);
  expect(state(two).openTakeId).toBe("t");
  expect(rename(two, "Mine")).toBeUndefined();
  expect(state(two).kit?.name).toBe("Renamed");
  expect(titles(two)).toEqual(["Renamed is being worked on in another tab."]);
});

test("unchanged takes are not read again: the other tab keeps its objects", async () => {
  const [before] = state(two).takes;
  rename(one, "Renamed");
  await until(() => state(two).kit?.name === "Renamed");
  expect(state(two).takes[0]).toBe(before);
});

test("the pen is taken over with one click; no pending edit is lost", async () => {
  rename(one, "Last word of one");
  two.workbench.takePen();
  await until(() => state(two).holder === "ours" && state(one).holder === "theirs");
  expect(state(two).kit?.name).toBe("Last word of one");
  rename(two, "First word of two");
  await until(() => state(one).kit?.name === "First word of two");
  one.workbench.takePen();
  await until(() => state(one).holder === "ours");
  expect(state(one).kit?.name).toBe("First word of two");
});

test("a tab that does not respond loses the pen; its later write conflicts and both versions are kept", async () => {
  const gone = browser.channel;
  browser.channel = new EventTarget();
  const three = openTab({ ...browser, channel: new EventTarget() });
  browser.channel = gone;
  await three.workbench.open("k");
  expect(state(three).holder).toBe("theirs");
  three.workbench.takePen();
  three.timers.pass(1500);
  await until(() => state(three).holder === "ours");
  rename(three, "Three's");
  await three.workbench.flush();
  await until(() => state(one).holder === "theirs");
  expect(rename(one, "One's")).toBeUndefined();
});

test("without locks both write: the second finds its rules among the variants and its take among the takes", async () => {
  const bare = { ...createBrowser(), channel: new EventTarget() };
  const left = openTab(bare, { locks: undefined, channel: undefined });
  const right = openTab(bare, { locks: undefined, channel: undefined });
  await openKit(left, KIT, [take("t")]);
  await right.workbench.open("k");
  rename(left, "Left's");
  await left.workbench.flush();
  right.workbench.editTake("longer", "t", old => ({ ...old, frames: 90 }));
  rename(right, "Right's");
  await right.workbench.flush();
  await until(() => state(right).variants.length === 1);
  expect(state(right).kit?.name).toBe("Left's");
  expect(state(right).variants[0]).toMatchObject({
    name: "Right's, from another tab",
    kit: { name: "Right's" },
  });
  expect(state(right).takes.map(({ name, frames }) => [name, frames])).toEqual([
    ["t", 60],
    ["t, from another tab", 90],
  ]);
  expect(titles(right)).toEqual(["Left's was changed in two tabs at once. Both versions are kept."]);
});

test("a kit deleted elsewhere stays open, is not written back, and can be restored", async () => {
  await two.shelf.takeOff("k");
  await until(() => state(one).holder === "gone");
  expect(rename(one, "Ghost")).toBeUndefined();
  await one.workbench.flush();
  expect(await two.shelf.list()).toEqual([]);
  expect(titles(one)).toContain("K was deleted in another tab.");
  one.workbench.putKitBack();
  await until(() => state(one).holder === "ours");
  await one.workbench.flush();
  const [back] = await two.shelf.list();
  expect(back).toMatchObject({ id: "k", order: { takes: ["t"] } });
});

test("leaving the page sets the last edit aside, and the next page has it", async () => {
  rename(one, "Last edit");
  one.workbench.leave();
  const next = openTab(browser);
  await next.workbench.open("k");
  expect(state(next).kit?.name).toBe("Last edit");
  expect(state(next).variants).toEqual([]);
});

test("a page that is left stores its last edit and returns the pen, and requests it again when shown", async () => {
  rename(one, "Last word of one");
  one.workbench.leave();
  await until(() => state(two).holder === "ours");
  expect(state(two).kit?.name).toBe("Last word of one");
  expect(state(two).variants).toEqual([]);
  rename(two, "Two's");
  one.workbench.comeBack();
  await until(() => state(one).kit?.name === "Two's");
  expect(state(one).holder).toBe("theirs");
  two.workbench.leave();
  await until(() => state(one).holder === "ours");
});

test("a page left while an edit could not be written: the tab that takes the pen has the edit", async () => {
  const { localStorage } = browser;
  one.workbench.leave();
  await until(() => state(two).holder === "ours");
  localStorage.setItem(
    "moss-tap-left:gone:k",
    JSON.stringify({
      kitId: "k",
      base: 1,
      record: { id: "k", kit: { ...KIT, name: "Left behind" }, order: { takes: ["t"] } },
      hasNewRules: true,
      put: [],
      drop: [],
    }),
  );
  two.workbench.leave();
  one.workbench.comeBack();
  await until(() => state(one).holder === "ours");
  expect(state(one).kit?.name).toBe("Left behind");
  expect(localStorage.length).toBe(0);
});

test("a browser that refuses its locks gives every tab the pen, and knows of no other tab", async () => {
  const refuse = () => Promise.reject(new DOMException("no data of this site", "SecurityError"));
  const bare = openTab(createBrowser(), { locks: { request: refuse } as unknown as LockManager });
  const holders: string[] = [];
  const pen = await bare.tabs.askForPen(
    "k",
    holder => holders.push(holder),
    () => Promise.resolve(),
  );
  pen.take();
  pen.giveUp();
  expect(holders).toEqual(["ours"]);
  expect(await bare.tabs.isAlive("k")).toBe(false);
  bare.tabs.markAlive("k")();
});
