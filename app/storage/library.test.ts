import { openDB } from "idb";
import { expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { createBrowser, createTimers, until, type TestBrowser } from "../tests/testWorld";
import { openDatabase, type Database } from "./database";
import { changeOf } from "./kitWrite";
import { createLibrary, type WriteAnswer } from "./library";
import { isBroken, DEFAULT_SETTINGS, type KitDocument } from "./records";
import { formatTrouble, isUnread } from "./status";
import { createTabs } from "./tabs";
import { documentOf } from "./shelf";

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
const named = (name: string): Kit => ({ ...KIT, name });

/** Opens a library on a browser's storage that can fail as a full disk does, or in another way. */
function open(browser: TestBrowser, tabId = "tab", isFull = false) {
  const timers = createTimers();
  let opened: Database | undefined;
  const disk = { isFull, fault: undefined as DOMException | undefined, close: () => opened?.close() };
  const unwritable: { readonly text: string; readonly forget: () => void }[] = [];
  const tabs = createTabs({ tabId, channel: undefined, locks: browser.locks, setTimer: timers.setTimer });
  const library = createLibrary({
    name: browser.databaseName,
    tabs,
    localStorage: browser.localStorage,
    locks: browser.locks,
    setTimer: timers.setTimer,
    yieldToUi: () => Promise.resolve(),
    onUnwritable: ({ text }, forget) => unwritable.push({ text, forget }),
    async open(name, onGone) {
      const db = (opened = await openDatabase(name, onGone));
      return new Proxy(db, {
        get(target, key) {
          const fault = disk.isFull ? new DOMException("no room", "QuotaExceededError") : disk.fault;
          if (key === "transaction" && fault)
            return () => {
              throw fault;
            };
          const value: unknown = Reflect.get(target, key, target);
          return typeof value === "function" ? value.bind(target) : value;
        },
      }) as Database;
    },
  });
  const put = (before: KitDocument | undefined, now: KitDocument): Promise<WriteAnswer> =>
    library.write(changeOf(before, now, { rows: DEFAULT_SETTINGS, change: "changed", changedAt: 1 }));
  const nameOf = async () => {
    const kept = await library.readKit("k");
    return kept && !isBroken(kept) ? kept.document.kit.name : kept;
  };
  return { library, timers, disk, put, nameOf, unwritable };
}

test("a full disk is reported; held writes are read back, retried, and stored when there is room", async () => {
  const browser = createBrowser();
  const { library, timers, disk, put, nameOf } = open(browser);
  await put(undefined, documentOf(named("First")));
  disk.isFull = true;
  expect(await put(documentOf(named("First")), documentOf(named("Second"), [take("t")]))).toEqual({
    state: "held",
  });
  expect(library.status.getState().trouble).toBe("full");
  expect([library.hasHeld(), await nameOf()]).toEqual([true, "Second"]);
  timers.pass(5000);
  await put(documentOf(named("Second"), [take("t")]), documentOf(named("Third"), [take("t")]));
  expect(library.hasHeld()).toBe(true);
  disk.isFull = false;
  timers.pass(5000);
  await until(() => !library.hasHeld());
  expect(library.status.getState().trouble).toBeUndefined();
  const kept = await open(browser, "later").library.readKit("k");
  expect(kept).toMatchObject({ document: { kit: { name: "Third" }, takes: [{ id: "t" }] } });
});

test("an edit made once there is room again is written together with what was held", async () => {
  const browser = createBrowser();
  const { library, disk, put } = open(browser);
  await put(undefined, documentOf(named("First")));
  disk.isFull = true;
  await put(documentOf(named("First")), documentOf(named("Second"), [take("t")]));
  disk.isFull = false;
  const before = documentOf(named("Second"), [take("t")]);
  expect(await put(before, documentOf(named("Third"), [...before.takes]))).toEqual({ state: "written" });
  expect([library.hasHeld(), library.status.getState().trouble]).toEqual([false, undefined]);
  const kept = await open(browser, "later").library.readKit("k");
  expect(kept).toMatchObject({ document: { kit: { name: "Third" }, takes: [{ id: "t" }] } });
});

test("a write without the last version stores nothing, and both versions can be kept", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  const two = open(browser, "two");
  await one.put(undefined, documentOf(KIT, [take("t")]));
  await two.library.readKit("k");
  const base = documentOf(KIT, [take("t")]);
  expect(await two.put(base, documentOf(named("Two's"), [...base.takes]))).toEqual({ state: "written" });
  const mine = documentOf(named("One's"), [...base.takes, take("mine")]);
  expect(await one.put(base, mine)).toEqual({ state: "changed", added: 2 });
  expect(await one.nameOf()).toBe("Two's");
  expect(await one.library.readKit("k")).toMatchObject({
    document: {
      kit: { name: "Two's" },
      takes: [{ id: "t" }, { id: "mine" }],
      variants: [{ name: "One's, from another tab", kit: { name: "One's" } }],
    },
  });
});

test("what two tabs keep of one kit has two names", async () => {
  const browser = createBrowser();
  const tabs = ["one", "two", "three"].map(id => open(browser, id));
  await tabs[0]!.put(undefined, documentOf(KIT));
  for (const { library } of tabs.slice(1)) await library.readKit("k");
  for (const tab of tabs) await tab.put(documentOf(KIT), documentOf(named("Mine"), [take("t")]));
  await tabs[2]!.put(documentOf(KIT), documentOf({ ...named("Mine"), rate: 30 }, [take("t")]));
  await tabs[1]!.put(documentOf(KIT), documentOf({ ...named("Mine"), rate: 20 }, [take("t")]));
  const kept = await open(browser, "later").library.readKit("k");
  if (!kept || isBroken(kept)) throw new Error("the kit must read");
  const names = kept.document.variants.map(({ name }) => name);
  expect(names.length).toBeGreaterThan(1);
  expect(new Set(names).size).toBe(names.length);
});

test("a kit taken off the shelf elsewhere is not written back as a ghost", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  const two = open(browser, "two");
  await one.put(undefined, documentOf(KIT, [take("t")]));
  await two.library.readKit("k");
  expect(
    await two.library.write({ kitId: "k", record: undefined, hasNewRules: false, put: [], drop: [] }),
  ).toEqual({
    state: "written",
  });
  expect(await one.put(documentOf(KIT), documentOf(named("Ghost")))).toEqual({ state: "gone" });
  expect(await one.library.listKits()).toEqual([]);
});

test("a write set aside by a closed page is stored by the next, once, and conflicts if it must", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  const aside = changeOf(documentOf(KIT), documentOf(named("Left")), {
    rows: DEFAULT_SETTINGS,
    change: "",
    changedAt: 1,
  });
  one.library.setAside(aside);
  const two = open(browser, "two");
  expect(await two.nameOf()).toBe("Left");
  expect(browser.localStorage.length).toBe(0);
  await two.put(documentOf(named("Left")), documentOf(named("Newer")));
  one.library.setAside(aside);
  const kept = await open(browser, "three").library.readKit("k");
  expect(kept).toMatchObject({
    document: { kit: { name: "Newer" }, variants: [{ name: "Left, from another tab" }] },
  });
});

const asideOf = (before: string, now: string, takes: readonly Take[] = []) =>
  changeOf(documentOf(named(before), takes), documentOf(named(now), takes), {
    rows: DEFAULT_SETTINGS,
    change: "",
    changedAt: 1,
  });

test("a write set aside remains until it is stored: a page that cannot store it shows it and leaves it", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  one.library.setAside(asideOf("K", "Left"));
  const two = open(browser, "two", true);
  expect(await two.nameOf()).toBe("Left");
  expect(two.library.hasHeld()).toBe(true);
  expect(browser.localStorage.length).toBe(1);
  const three = open(browser, "three");
  expect(await three.nameOf()).toBe("Left");
  expect(browser.localStorage.length).toBe(0);
});

test("an edit that is held because the storage is full is set aside when the page is left", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  one.disk.isFull = true;
  expect(await one.put(documentOf(KIT), documentOf(named("Held")))).toEqual({ state: "held" });
  one.library.setAside(undefined);
  expect(await open(browser, "two").nameOf()).toBe("Held");
});

test("a write in progress when the page was closed does not conflict with the later edit", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  const writing = one.put(documentOf(KIT), documentOf(named("First")));
  one.library.setAside(asideOf("K", "Second"));
  await writing;
  const kept = await open(browser, "two").library.readKit("k");
  expect(kept).toMatchObject({ document: { kit: { name: "Second" }, variants: [] } });
});

test("a write set aside that is invalid, or whose kit is gone, is offered as text and remains until dismissed", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  browser.localStorage.setItem("moss-tap-left:x:k", "{ torn");
  one.library.setAside(asideOf("K", "Ghost"));
  await one.put(documentOf(KIT), documentOf(named("Newer")));
  await one.library.write({ kitId: "k", record: undefined, hasNewRules: false, put: [], drop: [] });
  const two = open(browser, "two");
  expect(await two.library.listKits()).toEqual([]);
  expect(two.unwritable.map(({ text }) => text.includes("Ghost") || text)).toEqual(["{ torn", true]);
  expect(browser.localStorage.length).toBe(2);
  for (const { forget } of two.unwritable) forget();
  expect(browser.localStorage.length).toBe(0);
});

test("an unreadable record is listed with its reasons, and the rest opens", async () => {
  const browser = createBrowser();
  const { library, put } = open(browser);
  await put(undefined, documentOf(KIT, [take("t"), take("bad")]));
  const db = await openDatabase(browser.databaseName, () => undefined);
  await db.put("parts", { kitId: "k", list: "takes", id: "bad", value: { name: "Torn", frames: "many" } });
  await db.put("kits", { id: "torn", kit: { name: "Torn kit", format: "moss-tap/kit" } } as { id: string });
  await db.put("kits", { id: "" });
  db.close();
  const kept = await library.readKit("k");
  expect(kept).toMatchObject({ document: { takes: [{ id: "t" }] }, broken: [{ name: "Torn" }] });
  const listed = await library.listKits();
  expect(listed.filter(isBroken).map(({ name }) => name)).toEqual(["a kit without a name", "Torn kit"]);
  for (const { reasons } of listed.filter(isBroken)) expect(reasons.join(" ")).not.toBe("");
  // An unreadable kit can be removed from the shelf too, and once is enough.
  expect(await library.readKit("torn")).toMatchObject({ name: "Torn kit" });
  const answer = await library.write({
    kitId: "torn",
    record: undefined,
    hasNewRules: false,
    put: [],
    drop: [],
  });
  expect(answer).toEqual({ state: "written" });
  expect((await library.listKits()).filter(isBroken).map(({ name }) => name)).toEqual([
    "a kit without a name",
  ]);
});

test("without a responding storage, work continues in memory and is stored when it responds", async () => {
  const browser = createBrowser();
  const timers = createTimers();
  let answer: (() => void) | undefined;
  const tabs = createTabs({ tabId: "t", channel: undefined, locks: undefined, setTimer: timers.setTimer });
  const library = createLibrary({
    name: browser.databaseName,
    tabs,
    localStorage: undefined,
    locks: undefined,
    setTimer: timers.setTimer,
    yieldToUi: () => Promise.resolve(),
    open: async (name, onGone) => {
      await new Promise<void>(resolve => (answer = resolve));
      return openDatabase(name, onGone);
    },
  });
  const writing = library.write(
    changeOf(undefined, documentOf(KIT), { rows: DEFAULT_SETTINGS, change: "", changedAt: 1 }),
  );
  await until(() => answer !== undefined);
  timers.pass(3000);
  expect(await writing).toEqual({ state: "held" });
  expect(library.status.getState().trouble).toBe("slow");
  expect(await library.listKits()).toMatchObject([{ id: "k" }]);
  answer!();
  await until(() => {
    timers.pass(500);
    return !library.hasHeld();
  });
  expect(library.status.getState().trouble).toBeUndefined();
});

test("a database that a newer version has taken over is reported as such, and work is held", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  const newer = await openDB(browser.databaseName, 9);
  expect(await one.put(documentOf(KIT), documentOf(named("Later")))).toEqual({ state: "held" });
  expect(one.library.status.getState().trouble).toBe("newer");
  expect(isUnread(one.library.status.getState())).toBe(true);
  expect(await one.nameOf()).toBe("Later");
  newer.close();
});

test("a missing store is reported as a damaged storage", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  one.disk.fault = new DOMException("no such store", "NotFoundError");
  expect(await one.put(documentOf(KIT), documentOf(named("Later")))).toEqual({ state: "held" });
  expect(one.library.status.getState().trouble).toBe("damaged");
});

test("a write that the browser stops is held and written again, and the shelf is still known", async () => {
  const browser = createBrowser();
  const { library, timers, disk, put, nameOf } = open(browser);
  await put(undefined, documentOf(KIT));
  disk.fault = new DOMException("stopped", "AbortError");
  expect(await put(documentOf(KIT), documentOf(named("Later")))).toEqual({ state: "held" });
  expect(library.status.getState().trouble).toBe("stopped");
  expect(isUnread(library.status.getState())).toBe(false);
  disk.fault = undefined;
  timers.pass(5000);
  await until(() => !library.hasHeld());
  expect([library.status.getState().trouble, await nameOf()]).toEqual([undefined, "Later"]);
});

test("a database closed under the page is opened again for the next request", async () => {
  const browser = createBrowser();
  const one = open(browser, "one");
  await one.put(undefined, documentOf(KIT));
  one.disk.close();
  expect(await one.nameOf()).toBe("K");
  one.disk.close();
  expect(await one.put(documentOf(KIT), documentOf(named("Later")))).toEqual({ state: "written" });
  expect(one.library.status.getState().trouble).toBeUndefined();
});

test("every problem of the storage has words of its own", () => {
  const troubles = ["full", "none", "slow", "newer", "damaged", "stopped"] as const;
  expect(new Set(troubles.map(formatTrouble)).size).toBe(troubles.length);
});
