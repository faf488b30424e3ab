import { readFileSync } from "node:fs";
import { Key } from "selenium-webdriver";
import { expect, test } from "vitest";
import type { Kit } from "#core";
import { choose, find, openDemo, openKit, press, textOf, waitFor } from "./browser";
import { useSession } from "./session";

const session = useSession(null);

/** Returns the share of an element in the area of the window. */
const shareOf = (where: string) =>
  session.driver.executeScript<number>(
    `const { width, height } = document.querySelector(arguments[0]).getBoundingClientRect();
     return (width * height) / (innerWidth * innerHeight);`,
    where,
  );

test("as delivered, what a view is for has most of the window; a chosen height is kept for that view", async () => {
  const { driver } = session;
  await openDemo(session, "belfry-runner", "play");
  await find(driver, "[data-testid=stage]");
  expect(await shareOf("[data-testid=stage]")).toBeGreaterThan(0.45);
  const stagePx = await driver.executeScript<number>(
    `return document.querySelector("[data-testid=stage]").getBoundingClientRect().height`,
  );
  expect(stagePx).toBeGreaterThanOrEqual(480);
  // The demo names a press to look at, and a click opens it.
  await press(driver, "Leap at 136f");
  await waitFor(driver, "the lost press", async () =>
    /^A press eaten.*136f.*1 press lost|^A press eaten.*1 press lost.*136f/s.test(
      await textOf(driver, "section[aria-label=Tape]"),
    ),
  );
  // One key lets the stage fill the window, also while keys play; Escape ends listening first, then that.
  const isStageWide = async () => (await shareOf("[data-testid=stage]")) > 0.7;
  await press(driver, "Start listening");
  await driver.actions().sendKeys(Key.F3).perform();
  await waitFor(driver, "a stage as wide as the window", isStageWide);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await find(driver, "//button[normalize-space(.)='Record a take']");
  expect(await isStageWide()).toBe(true);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await find(driver, "//button[normalize-space(.)='Start listening']");
  await waitFor(driver, "the stage as before", async () => !(await isStageWide()));
  for (const [view, where, share] of [
    ["Shape", 'section[aria-label="The rule"]', 0.45],
    ["Wire", "main", 0.4],
    ["Tune", "[data-testid=tune]", 0.4],
    ["Prove", 'section[aria-label="Checks over takes"]', 0.5],
    ["Hand over", "[data-testid=sheet]", 0.4],
  ] as const) {
    await press(driver, view);
    await expect.poll(() => driver.getTitle()).toBe(`${view}: Belfry Runner · Moss Tap`);
    await find(driver, where);
    expect(await shareOf(where), view).toBeGreaterThan(share);
    expect(await driver.executeScript("return document.querySelectorAll('h1').length"), view).toBe(1);
    await waitFor(driver, `${view} without a scroll bar of the page`, () =>
      driver.executeScript<boolean>(
        "return document.documentElement.scrollHeight === document.documentElement.clientHeight",
      ),
    );
  }
  const dockPx = () =>
    driver.executeScript<number>(
      `return Number(document.querySelector('[aria-label="Height of the tape"]').getAttribute("aria-valuenow"))`,
    );
  const lowPx = await dockPx();
  await driver.executeScript("document.activeElement.blur()");
  await driver.actions().sendKeys("`").perform();
  await waitFor(driver, "a higher dock", async () => (await dockPx()) > lowPx);
  const chosenPx = await dockPx();
  await press(driver, "Tune");
  await waitFor(driver, "the dock of Tune", async () => (await dockPx()) !== chosenPx);
  await driver.navigate().refresh();
  await press(driver, "Hand over");
  await waitFor(driver, "the chosen height", async () => (await dockPx()) === chosenPx);
});

/** Returns every control of the header and the tape's button that the window cuts off, and views without room. */
const CUT_OFF = `const cut = [];
  const isInside = ({ left, right, width }) => width > 0 && left >= 0 && right <= innerWidth;
  const isChecked = part => part.closest("header") || / the tape$/.test(part.innerText);
  for (const part of document.querySelectorAll("a, button, header input"))
    if (isChecked(part) && part.checkVisibility() && !isInside(part.getBoundingClientRect())) cut.push(part.innerText || part.ariaLabel);
  const inHeader = [...document.querySelectorAll("header a, header button")].filter(part => part.checkVisibility());
  for (const part of inHeader)
    for (const other of inHeader) {
      const [a, b] = [part.getBoundingClientRect(), other.getBoundingClientRect()];
      const isOver = a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
      if (part !== other && isOver) cut.push(part.innerText + " lies on " + other.innerText);
    }
  if (document.documentElement.scrollWidth > innerWidth) cut.push("the page is wider than the window");
  const share = document.querySelector("main").getBoundingClientRect().height / innerHeight;
  if (share < 0.5) cut.push("the view has " + share);
  return cut;`;

/** Sets the size of the page, and waits until it is drawn. */
async function resize(width: number, height: number): Promise<void> {
  const size = { width, height, deviceScaleFactor: 1, mobile: false };
  await session.driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", size);
  await session.driver.executeAsyncScript(
    "const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => done()));",
  );
}

test("no view is cut off from 360 px on, or at a zoom of 125 to 300 %; the tape gives way first", async () => {
  const { driver } = session;
  await openDemo(session, "belfry-runner", "play");
  await find(driver, "[data-testid=stage]");
  await find(driver, "header [data-testid=proof-sum]");
  const faults: string[] = [];
  for (const view of ["Wire", "Shape", "Play", "Tune", "Prove", "Hand over"]) {
    await resize(360, 640);
    await choose(driver, "View: ", view);
    await waitFor(driver, view, () =>
      driver.executeScript<boolean>(
        "return location.pathname.endsWith(arguments[0])",
        `/${view.toLowerCase().replace(" ", "-")}`,
      ),
    );
    for (const [width, height] of [
      [427, 267],
      [640, 400],
      [853, 533],
      [960, 600],
      [1024, 640],
      [1237, 800],
      [1280, 800],
      [360, 640],
    ] as const) {
      await resize(width, height);
      const cut = await driver.executeScript<string[]>(CUT_OFF);
      faults.push(...cut.map(part => `${view} at ${width}×${height}: ${part}`));
    }
  }
  expect(faults).toEqual([]);
  // In a narrow window the name of the kit is in a panel, and the whole of the tape is a click away.
  await press(driver, "Kit");
  await find(driver, '[aria-label="Name of the kit"]');
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Show the tape");
  await find(driver, '//button[normalize-space(.)="Hide the tape"]');
  // A dialog is whole too.
  await (await find(driver, "[data-testid=tape]")).sendKeys("?");
  await find(driver, "[role=dialog] h2");
  const isWhole = `const { left, right } = document.querySelector("[role=dialog] h2").parentElement.getBoundingClientRect();
    return left >= 0 && right <= innerWidth;`;
  expect(await driver.executeScript(isWhole)).toBe(true);
});

/**
 * Returns the places where a line of a sentence begins with a comma or the like, at any of some widths of the view, and the
 * parts kept with their marks that are wider than their sentence.
 */
const MARKS_ASTRAY = `const astray = new Set();
  const main = document.querySelector("main");
  const texts = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
  const marks = [];
  for (let text = texts.nextNode(); text; text = texts.nextNode()) {
    const before = text.previousSibling ?? text.parentElement.previousSibling;
    if (before && /^[,.;:?!)]/.test(text.data)) marks.push({ text, before });
  }
  const rectsOf = node => {
    const range = document.createRange();
    range.selectNode(node);
    return [...range.getClientRects()].filter(({ width }) => width > 0);
  };
  for (let widthPx = 560; widthPx < 1280; widthPx += 6) {
    main.style.width = widthPx + "px";
    for (const { text, before } of marks) {
      const [mark, last] = [rectsOf(text)[0], rectsOf(before).at(-1)];
      if (mark && last && mark.top >= last.bottom - 2) astray.add(text.data.slice(0, 30));
    }
  }
  main.style.width = "";
  for (const { text } of marks) {
    const kept = text.parentElement;
    const room = kept.closest("p, li");
    if (kept.matches("span") && room && kept.offsetWidth > room.clientWidth) astray.add("too wide: " + kept.innerText);
  }
  return { marks: marks.length, astray: [...astray] };`;

test.each([
  ["play", "[data-testid=stage]", 10],
  ["shape", "[data-testid=sentence]", 3],
  ["tune", "[data-testid=tune]", 0],
] as const)("no line of a sentence on %s begins with a comma or a period", async (view, where, marks) => {
  const { driver } = session;
  await openDemo(session, "clapper-duel", view);
  await find(driver, where);
  const found = await driver.executeScript<{ marks: number; astray: string[] }>(MARKS_ASTRAY);
  expect(found.astray).toEqual([]);
  expect(found.marks).toBeGreaterThan(marks);
});

test("in the sentences of a runner every line has room, also for a lifted jump", async () => {
  const { driver } = session;
  const kit = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as Kit & { stage: object };
  const height = { by: "lift", control: "leap", for: "12f", from: "2f", share: 0.2 };
  await openKit(session, { ...kit, stage: { ...kit.stage, height } } as Kit);
  await find(driver, '[aria-label^="how the lift ends"]');
  expect((await driver.executeScript<{ astray: string[] }>(MARKS_ASTRAY)).astray).toEqual([]);
});

test("twelve controls fit on Wire, one of them with a name of sixty letters", async () => {
  const { driver } = session;
  const names = [
    "Up",
    "Down",
    "Back",
    "Forward",
    ...Array.from({ length: 7 }, (_, k) => `Strike ${k}`),
    "N".repeat(60),
  ];
  const controls = names.map((name, k) => ({
    id: `c${k}`,
    name,
    bindings: [["key:KeyA"], ["pad:12"], ...(k < 4 ? [["pad:axis1-"]] : [])],
  }));
  const kit: Kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "many",
    name: "Many",
    rate: 60,
    controls,
    patterns: [],
  };
  await openKit(session, kit, [], "wire");
  await find(driver, 'section[aria-label="Controls"] li');
  const lines = await driver.executeScript<number[]>(`
    const list = document.querySelector('section[aria-label="Controls"] ul');
    const { bottom } = list.parentElement.getBoundingClientRect();
    return [...list.children].map(line => line.getBoundingClientRect()).map(box => box.bottom <= bottom ? box.height : -1);`);
  expect(lines).toHaveLength(12);
  for (const height of lines) {
    expect(height).toBeGreaterThan(30);
    expect(height).toBeLessThanOrEqual(40);
  }
});

test("a control with a name of sixty letters fits beside its rule in a window of 1000 px", async () => {
  const { driver } = session;
  const kit: Kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "long",
    name: "Long",
    rate: 60,
    controls: [{ id: "a", name: "A long name ".repeat(5), bindings: [["key:KeyA"]] }],
    patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  };
  await resize(1000, 800);
  await openKit(session, kit, [], "shape");
  await find(driver, 'aside[aria-label="Try it here"] button');
  const isWhole = `const aside = document.querySelector('aside[aria-label="Try it here"]');
    return aside.scrollWidth <= aside.clientWidth;`;
  expect(await driver.executeScript(isWhole)).toBe(true);
});
