import { writeFileSync } from "node:fs";
import { Key, Origin, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import type { Kit } from "#core";
import {
  find,
  keptKit,
  openBelfry,
  openRule,
  press,
  textOf,
  typeOver,
  waitFor,
  openDemo,
  openAnother,
} from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(async () => {
  driver = session.driver;
});

const canPress = async (words: string) => (await find(driver, `//button[.="${words}"]`)).isEnabled();
const hold = (what: string) => keptKit(driver, what, kit => kit.name === what);
/** Returns everything of the stored kit except its name, as text. */
const restOf = ({ name: _name, ...rest }: Kit) => JSON.stringify(rest);

async function newRule(words: string): Promise<void> {
  await press(driver, "Shape");
  await press(driver, "New rule");
  await press(driver, words);
  await find(driver, "[data-testid=sentence]");
}

interface Spot {
  readonly origin: Origin;
  readonly x?: number;
  readonly y?: number;
}

/** One drag: press, move, undo by keys while holding, move on, release. */
const dragWithUndo = (from: Spot, to: Spot, on = to) =>
  driver
    .actions()
    .move(from)
    .press()
    .move(to)
    .keyDown(Key.CONTROL)
    .sendKeys("z")
    .keyUp(Key.CONTROL)
    .move(on)
    .release()
    .perform();

/** Returns the centre of an element, scrolled to the middle of the view; waits until it exists. */
const spotOf = (where: string): Promise<Spot> =>
  waitFor(driver, where, async () => {
    const at = await driver.executeScript<[number, number] | null>(
      `const found = document.querySelector(arguments[0]);
       if (!found) return null;
       found.scrollIntoView({ block: "center" });
       const box = found.getBoundingClientRect();
       return [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2)];`,
      where,
    );
    return at ? { origin: Origin.VIEWPORT, x: at[0], y: at[1] } : undefined;
  });

/** Every element whose drag changes the kit: how to reach it, where it is, and the direction of the drag. */
const DRAGS: readonly [
  string,
  () => Promise<unknown>,
  string,
  { readonly x?: number; readonly y?: number },
][] = [
  [
    "the edge of a map",
    () => newRule("Tap or hold"),
    '[aria-label="Leap tap: longest tap on the map"]',
    { x: -70 },
  ],
  [
    "a handle of a curve",
    async () => {
      await newRule("Charge and let go");
      await press(driver, "ease out");
    },
    '[aria-label="Second handle of the curve"]',
    { x: -10, y: 20 },
  ],
  [
    "a number in a sentence",
    () => openRule(driver, "Cling"),
    'input[aria-label^="length of the hold"]',
    { x: 40 },
  ],
  ["a press point", () => press(driver, "Wire"), '[aria-label="Press point of Brace"]', { y: 9 }],
];

test.each(DRAGS)(
  "%s: an undo in the middle of its drag takes the drag back and ends it; later edits are safe from Escape",
  async (_what, comeThere, where, { x = 0, y = 0 }) => {
    await openBelfry(session);
    await comeThere();
    await find(driver, where);
    await typeOver(driver, "Name of the kit", "Before");
    const before = restOf(await hold("Before"));
    await dragWithUndo(await spotOf(where), { origin: Origin.POINTER, x, y });
    await press(driver, "Redo");
    const dragged = restOf(await keptKit(driver, "the drag once more", kit => restOf(kit) !== before));
    await press(driver, "Undo");
    await press(driver, "Redo");
    await keptKit(driver, "the drag as one step", kit => restOf(kit) === dragged);
    await press(driver, "Undo");
    await typeOver(driver, "Name of the kit", "One edit");
    await typeOver(driver, "Name of the kit", "Another edit");
    await driver.actions().sendKeys(Key.ESCAPE).perform();
    expect(restOf(await hold("Another edit"))).toBe(before);
    await press(driver, "Undo");
    await hold("One edit");
    await press(driver, "Redo");
    await hold("Another edit");
    await expect.poll(() => canPress("Redo")).toBe(false);
  },
);

test("a brush on the level and on the tape: an undo in the middle of a stroke drops it and nothing else", async () => {
  await openDemo(session, "belfry-runner");
  await find(driver, "[data-testid=open-take]");
  await typeOver(driver, "Name of the kit", "Before");
  const before = restOf(await hold("Before"));
  await press(driver, "Draw the level");
  await find(driver, '[data-testid=stage][role="application"]');
  const middle = await spotOf("[data-testid=stage]");
  const at = (x: number) => ({ ...middle, x: middle.x! + x });
  await dragWithUndo(at(-100), at(-40), at(100));
  await press(driver, "Paint");
  const tape = await spotOf("[data-testid=tape]");
  const on = (x: number) => ({ ...tape, x: tape.x! + x, y: tape.y! - 100 });
  await dragWithUndo(on(-100), on(0), on(60));
  await typeOver(driver, "Name of the kit", "After");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  expect(restOf(await hold("After"))).toBe(before);
  await press(driver, "Undo");
  await hold("Before");
});

test("the dock is dragged during an undo: it follows the pointer, and a later Escape reverts nothing", async () => {
  await openBelfry(session);
  await typeOver(driver, "Name of the kit", "Before");
  await hold("Before");
  const grip = await find(driver, "[aria-label='Height of the tape']");
  const height = async () => Number(await grip.getAttribute("aria-valuenow"));
  const first = await height();
  await dragWithUndo(
    await spotOf("[aria-label='Height of the tape']"),
    { origin: Origin.POINTER, y: -40 },
    { origin: Origin.POINTER, y: -20 },
  );
  await hold("Belfry Runner");
  await waitFor(driver, "where the hand has it", async () => (await height()) === first + 60);
  await typeOver(driver, "Name of the kit", "After");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await hold("After");
  await expect.poll(height).toBe(first + 60);
});

const openTake = () => textOf(driver, "[data-testid=open-take]");

async function recordUntil(frames: number): Promise<void> {
  await press(driver, "Record a take");
  await recordOn(frames);
}

const recordOn = (frames: number) =>
  waitFor(
    driver,
    `${frames} frames`,
    async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))?.[1]) > frames,
  );

test("an undo during a recording affects no take; afterwards it removes the new take, and redo restores it", async () => {
  await openBelfry(session);
  await recordUntil(20);
  await press(driver, "Stop and keep");
  await waitFor(driver, "the first take", async () => /Take 3/.test(await openTake()));
  await recordUntil(20);
  await press(driver, "Undo");
  await waitFor(driver, "why not", async () =>
    (await textOf(driver, "[aria-label=Notices]")).includes("recording"),
  );
  await press(driver, "Stop and keep");
  await waitFor(driver, "the second take", async () => /Take 4/.test(await openTake()));
  await press(driver, "Undo");
  await waitFor(driver, "the second taken away", async () => !/Take 4/.test(await openTake()));
  await press(driver, "Redo");
  await press(driver, "Open Take 4");
  await press(driver, "Open Take 3");
  await waitFor(driver, "both there", async () => /Take 3/.test(await openTake()));
});

test("a recording is kept when another tab took the pen, and is not offered as interrupted while it runs", async () => {
  await openBelfry(session);
  const address = await driver.getCurrentUrl();
  const first = await driver.getWindowHandle();
  await recordUntil(150);
  await openAnother(driver, "tab");
  await driver.get(address);
  const second = await driver.getWindowHandle();
  await press(driver, "Work on it here");
  await waitFor(
    driver,
    "the pen",
    async () => (await driver.findElements({ css: "[data-testid=pen]" })).length === 0,
  );
  await expect.poll(() => textOf(driver, "body")).not.toContain("cut off");
  await driver.switchTo().window(first);
  await press(driver, "Stop and keep");
  await driver.switchTo().window(second);
  await find(driver, '//button[@aria-label="Open Take 3"]');
  await driver.navigate().refresh();
  await find(driver, '//button[@aria-label="Open Take 3"]');
  await expect.poll(() => textOf(driver, "body")).not.toContain("cut off");
});

test("a recording survives its kit: deleted in another tab and restored, the kit has the take", async () => {
  await openBelfry(session);
  const first = await driver.getWindowHandle();
  await recordUntil(30);
  await openAnother(driver, "tab");
  await driver.get(session.address);
  await press(driver, "Delete Belfry Runner");
  await waitFor(
    driver,
    "an empty shelf",
    async () => (await driver.findElements({ css: "[data-testid=kit-belfry-runner]" })).length === 0,
  );
  await driver.switchTo().window(first);
  await press(driver, "Stop and keep");
  await press(driver, "Put it back");
  await find(driver, '//button[@aria-label="Open Take 3"]');
  await driver.navigate().refresh();
  await find(driver, '//button[@aria-label="Open Take 3"]');
});

test("a page left for another address releases the pen at once, and requests it again on return", async () => {
  await openBelfry(session);
  const address = await driver.getCurrentUrl();
  const first = await driver.getWindowHandle();
  await openAnother(driver, "tab");
  await driver.get(address);
  await find(driver, "[data-testid=pen]");
  const second = await driver.getWindowHandle();
  await driver.switchTo().window(first);
  await driver.get("about:blank");
  await driver.switchTo().window(second);
  await waitFor(
    driver,
    "the pen",
    async () => (await driver.findElements({ css: "[data-testid=pen]" })).length === 0,
  );
  await typeOver(driver, "Name of the kit", "Written here");
  await hold("Written here");
});

test("checks with an event far beyond any take are refused with a sentence, and every view still opens", async () => {
  await openBelfry(session);
  const checks = {
    format: "moss-tap/checks",
    version: 1,
    id: "far",
    name: "Far",
    kit: "belfry-runner",
    checks: [
      {
        id: "far",
        name: "Far",
        on: ["clean-climb"],
        same: [[1e12, "performed", "hop"]],
      },
    ],
  };
  await press(driver, "Hand over");
  const picker = await waitFor(driver, "the picker", () => driver.findElement({ css: "input[type=file]" }));
  const file = `${session.downloads}/far.json`;
  writeFileSync(file, JSON.stringify(checks));
  await picker.sendKeys(file);
  await waitFor(driver, "a refusal", async () =>
    /1000000000000 is more than the 17,280,000 frames/.test(await textOf(driver, "body")),
  );
  for (const view of ["Play", "Shape", "Wire", "Prove", "Tune"]) {
    await driver.actions().sendKeys(Key.ESCAPE).perform();
    await press(driver, view);
    await find(driver, "[data-testid=open-take]");
  }
});
