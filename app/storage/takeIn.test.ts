import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { openTab, type TestTab } from "../tests/testWorld";
import { formatFile, readSource, type FileDocument } from "#handover";
import { isBroken, NO_PARTS } from "./records";
import { documentOf } from "./shelf";
import { takeIn } from "./takeIn";

const kit = (id: string, name = id.toUpperCase()): Kit => ({
  format: "moss-tap/kit",
  version: 1,
  id,
  name,
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
});
const take = (id: string, name: string, of?: string): Take => ({
  format: "moss-tap/take",
  version: 1,
  id,
  name,
  ...(of === undefined ? {} : { kit: of }),
  rate: 60,
  frames: 60,
  lanes: { a: [[name.length, 1]] },
});

let tab: TestTab;
beforeEach(() => {
  tab = openTab();
});

/** Imports files on the shelf and returns the resulting notices. */
async function drop(...documents: readonly FileDocument[]): Promise<string[]> {
  const read = documents.flatMap((document, n) => readSource(`${n}.json`, formatFile(document)));
  const before = tab.notices.store.getState();
  await takeIn(read, { shelf: tab.shelf, notify: tab.notices.notify, onChange: () => undefined });
  return tab.notices.store
    .getState()
    .filter(notice => !before.includes(notice))
    .map(({ title }) => title);
}

/** Returns the contents of the shelf: names of kits, each with the names of its takes. */
async function shelf(): Promise<Record<string, string[]>> {
  const kits = (await tab.shelf.list()).filter(entry => !isBroken(entry));
  const read = await Promise.all(kits.map(entry => tab.library.readKit(entry.id)));
  return Object.fromEntries(
    read.flatMap(kept =>
      kept && !isBroken(kept)
        ? [[kept.document.kit.name, kept.document.takes.map(({ name }) => name).sort()]]
        : [],
    ),
  );
}

test("two kits imported with takes: each take goes to the kit it names; one without a kit is reported", async () => {
  const titles = await drop(
    kit("x"),
    kit("y"),
    take("1", "of x", "x"),
    take("2", "of y", "y"),
    take("3", "stray"),
  );
  expect(await shelf()).toEqual({ X: ["of x"], Y: ["of y"] });
  expect(titles).toEqual([
    "X is on the shelf, with 1 take.",
    "Y is on the shelf, with 1 take.",
    "stray has no kit here, and was not taken in.",
  ]);
});

test("a take without a kit is added to the only kit imported; one for an absent kit is offered", async () => {
  await drop(kit("x"), take("1", "stray"));
  expect(await shelf()).toEqual({ X: ["stray"] });
  await drop(kit("y"), take("2", "astray", "z"));
  const { action } = tab.notices.store.getState().at(-1)!;
  expect(action?.label).toBe("Put it with Y");
  action!.run();
  await expect.poll(shelf).toEqual({ X: ["stray"], Y: ["astray"] });
});

test("the same kit imported twice is not duplicated, and the result is reported", async () => {
  await drop(kit("x"), take("1", "first", "x"));
  expect(await drop(kit("x"), take("1", "first", "x"))).toEqual([
    "X is on the shelf already, word for word, with these takes. Nothing was added.",
  ]);
  expect(await drop(kit("x"), take("1", "second", "x"))).toEqual([
    "X was on the shelf already, word for word; 1 take added to it.",
  ]);
  expect(await shelf()).toEqual({ X: ["first", "second"] });
});

test("a kit with a taken id is added under a unique name", async () => {
  await drop(kit("x"));
  const titles = await drop({ ...kit("x"), rate: 30 }, take("1", "slow", "x"));
  expect(titles).toEqual([
    "A kit of that id was there and is not the same: this one is kept beside it as X 2, with 1 take.",
  ]);
  expect(await shelf()).toEqual({ X: [], "X 2": ["slow"] });
});

test("a kit deleted and put back leaves nothing of a second name, and has all it had", async () => {
  await drop(kit("x"), take("1", "first", "x"));
  const taken = (await tab.shelf.takeOff("x"))!;
  expect(await shelf()).toEqual({});
  await drop(kit("x"), take("1", "first", "x"));
  await tab.shelf.putBack(taken);
  expect(await shelf()).toEqual({ X: ["first"] });
});

test("two takes of one id are both kept and counted correctly", async () => {
  const titles = await drop(kit("x"), take("1", "left", "x"), take("1", "right", "x"));
  expect(titles).toEqual(["X is on the shelf, with 2 takes."]);
  expect(await shelf()).toEqual({ X: ["left", "right"] });
  const kept = await tab.library.readKit("x");
  const ids = kept && !isBroken(kept) ? kept.document.takes.map(({ id }) => id) : [];
  expect(new Set(ids).size).toBe(2);
  await tab.shelf.addParts("x", { ...NO_PARTS, takes: [take("1", "third", "x")] });
  expect(await shelf()).toEqual({ X: ["left", "right", "third"] });
});

test("unsuitable and unreadable files are reported, and the shelf is unchanged", async () => {
  await tab.shelf.add(documentOf(kit("x")), "new");
  const titles = await drop(
    { format: "moss-tap/layout", version: 1, id: "l", name: "Left hand", bindings: {} },
    { ...kit("y"), rate: -1 },
  );
  expect(titles).toEqual([
    "Left hand: a layout of keys, not for the shelf.",
    "1.json was not read. The shelf is as it was.",
  ]);
  expect(await shelf()).toEqual({ X: [] });
  // Beside a kit that was read, the shelf is not as it was.
  expect(await drop({ ...kit("y"), rate: -1 }, kit("z"))).toEqual([
    "Z is on the shelf.",
    "0.json was not read.",
  ]);
});

test("everything imported with a kit is added to it, including layouts; a second import reports each as existing", async () => {
  const layout = { format: "moss-tap/layout", version: 1, id: "l", name: "Left hand", bindings: {} } as const;
  const check = { id: "c", name: "Holds", on: "*", never: { kind: "fired", id: "h" } } as const;
  const list = {
    format: "moss-tap/checks",
    version: 1,
    id: "cs",
    name: "",
    kit: "x",
    checks: [check],
  } as const;
  const documents = [kit("x"), take("1", "first", "x"), layout, list];
  const read = documents.flatMap((document, n) => readSource(`${n}.json`, formatFile(document)));
  const world = { shelf: tab.shelf, notify: tab.notices.notify, onChange: () => undefined };
  const lines = async () =>
    (await takeIn(read, world)).map(({ name, isTaken, words }) => [name, isTaken, words]);
  expect(await lines()).toEqual([
    ["X", true, "on the shelf"],
    ["first", true, "with X"],
    ["Left hand", true, "with X"],
    ["Holds", true, "with X"],
  ]);
  const kept = await tab.library.readKit("x");
  expect(kept && !isBroken(kept) && kept.document).toMatchObject({ layouts: [layout], checks: [check] });
  expect((await lines()).map(([, isTaken, words]) => [isTaken, words])).toEqual([
    [false, "was there already, word for word"],
    ...Array.from({ length: 3 }, () => [false, "was with X already"]),
  ]);
});

test("variants come back with their kit, once, also under another id; those of an absent kit are reported", async () => {
  const slow = {
    kind: "variant",
    name: "variants/slow.kit.json",
    kit: { ...kit("x", "Slow"), rate: 30 },
  } as const;
  const world = { shelf: tab.shelf, notify: tab.notices.notify, onChange: () => undefined };
  const whole = (rules: Kit) => takeIn([{ kind: "kit", name: "x.json", kit: rules }, slow], world);
  const variantsOf = async (id: string) => {
    const kept = await tab.library.readKit(id);
    return kept && !isBroken(kept) ? kept.document.variants : [];
  };
  await drop(kit("x"));
  expect(await whole(kit("x"))).toMatchObject([
    { isTaken: false },
    { name: "Slow", isTaken: true, words: "with X" },
  ]);
  expect(tab.notices.store.getState().at(-1)!.title).toBe(
    "X was on the shelf already, word for word; 1 thing added to it.",
  );
  expect(await variantsOf("x")).toMatchObject([{ name: "Slow", kit: { ...kit("x"), rate: 30 } }]);
  expect((await whole(kit("x"))).map(({ isTaken }) => isTaken)).toEqual([false, false]);
  expect(await variantsOf("x")).toHaveLength(1);
  const { kitId } = await tab.shelf.add({ ...documentOf({ ...kit("x"), rate: 120 }) }, "new");
  expect(kitId).not.toBe("x");
  await whole({ ...kit("x"), rate: 90 });
  const entries = (await tab.shelf.list()).flatMap(entry => (isBroken(entry) ? [] : [entry.kit]));
  expect(await variantsOf(entries.find(({ rate }) => rate === 90)!.id)).toHaveLength(1);
  expect(await takeIn([slow], world)).toMatchObject([{ name: "Slow", isTaken: false }]);
});

test("takes without a kit are reported together, each with the kit it names", async () => {
  await drop(kit("y"));
  const many = [1, 2, 3].map(n => take(String(n), `stray ${n}`, "z"));
  expect(await drop(...many)).toEqual(["3 takes have no kit here, and were not taken in."]);
  expect(tab.notices.store.getState().at(-1)!.details[0]).toBe("stray 1: it was recorded for “z”.");
});
