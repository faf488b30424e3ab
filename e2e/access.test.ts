import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import {
  choose,
  clickOn,
  find,
  keptKit,
  openBelfry,
  openDemo,
  openNewKit,
  openRule,
  openShelf,
  press,
  readSaved,
  textOf,
  waitFor,
} from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(() => {
  driver = session.driver;
});

/**
 * Returns a function that collects serious accessibility faults, and banned words, of the page. By night only
 * the colours differ, so only contrast is looked at again.
 */
function createLook(faults: string[]): (where: string) => Promise<void> {
  const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
  const run = (only: object) =>
    driver.executeAsyncScript<{ id: string; impact: string; nodes: { html: string }[] }[]>(
      `const [only, done] = arguments;
       // The library's own stops for the focus at the ends of a flap are hidden, and must be reached.
       const page = { exclude: [["[id^='headlessui-focus-sentinel']"]] };
       axe.run(page, { resultTypes: ["violations"], preload: false, ...only }).then(result => done(result.violations))`,
      only,
    );
  /** Sets a theme, and ends every fade, so that no colour is looked at half way. */
  const switchTo = (theme: string) =>
    driver.executeScript(
      `document.documentElement.dataset.theme = arguments[0];
       for (const animation of document.getAnimations())
         if (animation.effect.getComputedTiming().endTime < Infinity) animation.finish();`,
      theme,
    );
  return async where => {
    if (!(await driver.executeScript("return 'axe' in window"))) await driver.executeScript(axe);
    const theme = await driver.executeScript<string | null>(
      "return document.documentElement.dataset.theme ?? null",
    );
    await switchTo("day");
    const byDay = await run({});
    await switchTo("night");
    const byNight = await run({ runOnly: ["color-contrast"] });
    await switchTo(theme ?? "day");
    const words = await driver.executeScript<string>("return document.body.innerText");
    const slip = /.*\b(NaN|Infinity|undefined)\b.*/.exec(words) ?? /.*(?:Infinity|NaN)f.*/.exec(words);
    if (slip) faults.push(`${where}: says "${slip[0]}"`);
    for (const fault of [...byDay, ...byNight]) {
      if (["serious", "critical"].includes(fault.impact))
        faults.push(`${where}: ${fault.id} ${fault.nodes.map(node => node.html).join(" ")}`);
    }
  };
}

test("no view has a serious fault for assistive technology, by day or night", async () => {
  const faults: string[] = [];
  const look = createLook(faults);
  await openShelf(session);
  await look("Shelf");
  await openBelfry(session);
  await press(driver, "Shape");
  for (const starter of ["Charge and let go", "Motion and button"]) {
    await press(driver, "New rule");
    await choose(driver, "Control of the new rule", "Leap");
    if (starter === "Charge and let go") await look("the list of new rules");
    await press(driver, starter);
    await find(driver, "[data-testid=sentence]");
  }
  for (const view of ["Wire", "Shape", "Play", "Tune", "Prove", "Hand over"]) {
    await press(driver, view);
    await waitFor(
      driver,
      view,
      async () => (await textOf(driver, 'nav[aria-label="Views"] [aria-current=page]')) === view,
    );
    await look(view);
    if (view === "Play") {
      await press(driver, "Start listening");
      await find(driver, "//button[starts-with(., 'Freeze')]");
      await look("Play, listening");
      await driver.actions().sendKeys(Key.ESCAPE).perform();
    }
    for (const place of view === "Wire" ? ["Sticks", "Keys", "Modes", "Clock", "Figures"] : []) {
      await clickOn(driver, `nav[aria-label="Places in Wire"] a[href*="wire=${place.toLowerCase()}"]`);
      await find(driver, `section[aria-label="${place}"]`);
      await look(`Wire, ${place}`);
    }
    for (const rule of view === "Shape"
      ? ["Hop", "Right twice", "Tuck", "Leap charge", "Quarter turn"]
      : []) {
      await openRule(driver, rule);
      await look(`Shape of ${rule}`);
    }
  }
  expect(faults).toEqual([]);
  const theme = () => driver.executeScript("return document.documentElement.dataset.theme");
  await press(driver, "Night theme");
  await expect.poll(theme).toBe("night");
  await press(driver, "Day theme");
  await expect.poll(theme).toBe("");
});

test("stages, maps of moves and prompts, the table of moves, and the new kit page have no serious fault", async () => {
  const faults: string[] = [];
  const look = createLook(faults);
  const MAPS = {
    "Belfry Runner": [["Ring", "window-map"]],
    "Clapper Duel": [
      ["Chime", "ban-map"],
      ["Toll", "chain-map"],
    ],
    "Rope Catch": [["Catch it", "prompt-map"]],
  } as const;
  await openShelf(session);
  for (const [demo, maps] of Object.entries(MAPS)) {
    await press(driver, `Open demo ${demo}`);
    await find(driver, "[data-testid=stage]");
    await look(`the stage of ${demo}`);
    for (const [rule, map] of maps) {
      await openRule(driver, rule);
      await find(driver, `[data-testid=${map}]`);
      await look(`Shape of ${rule}, ${demo}`);
    }
    if (demo === "Clapper Duel") {
      await press(driver, "All moves as a table");
      await find(driver, "[data-testid=moves-table]");
      await look("moves side by side");
    }
    if (demo === "Belfry Runner") {
      await press(driver, "Prove");
      await clickOn(driver, '[aria-label^="A press just before the landing is not eaten in A press eaten"]');
      await look("Prove");
    }
    await press(driver, "Moss Tap: to the shelf");
  }
  await press(driver, "New kit");
  await press(driver, "A jump");
  await look("a new kit");
  await press(driver, "Build it, and play");
  await press(driver, "Script an input");
  await find(driver, "[data-testid=scripted-hand]");
  await look("written hands");
  expect(faults).toEqual([]);
});

test("a term is explained to the pointer, the keyboard and a tap, and Escape hides it", async () => {
  await openDemo(session, "clapper-duel", "tune");
  const shown = () =>
    driver.executeScript<string>(
      `return [...document.querySelectorAll(":popover-open")].map(tip => tip.innerText).join()`,
    );
  const room = await find(driver, "[data-testid=tune] button.cursor-help");
  await driver.actions().move({ origin: room }).perform();
  await waitFor(driver, "the explanation", async () =>
    /^How many frames earlier or later/.test(await shown()),
  );
  const wire = await find(driver, '//nav[@aria-label="Views"]//a[normalize-space(.)="Wire"]');
  await driver.actions().move({ origin: wire }).perform();
  await waitFor(driver, "the line of a view", async () =>
    (await shown()).startsWith("Controls, and the keys"),
  );
  await driver.executeScript("arguments[0].focus()", wire);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await waitFor(driver, "nothing", async () => (await shown()) === "");
  await driver.actions().sendKeys(Key.TAB).perform();
  await waitFor(driver, "the next view's", async () => (await shown()).startsWith("Rules: how presses"));
  expect(
    await driver.executeScript("return document.activeElement.getAttribute('aria-describedby')"),
  ).toBeTruthy();
  await clickOn(driver, "[data-testid=tune] button.cursor-help");
  await waitFor(driver, "the clicked one alone", async () =>
    /^How many frames earlier or later[^,]*$/.test(await shown()),
  );
});

test("under forced colours the words of a button and the chosen place differ from what is around them", async () => {
  const emulate = (features: readonly { name: string; value: string }[]) =>
    session.driver.sendDevToolsCommand("Emulation.setEmulatedMedia", { features });
  try {
    await emulate([
      { name: "forced-colors", value: "active" },
      { name: "prefers-color-scheme", value: "dark" },
    ]);
    await openDemo(session, "belfry-runner", "play");
    await find(driver, '//button[normalize-space(.)="Record a take"]');
    const looks = await driver.executeScript<Record<string, string>>(
      `const look = (element, property) => getComputedStyle(element)[property];
       const strong = [...document.querySelectorAll("button")].find(button => button.innerText === "Record a take");
       const views = [...document.querySelectorAll("nav[aria-label=Views] a")];
       const chosen = views.find(view => view.ariaCurrent === "page");
       const lamp = document.querySelector("button[aria-pressed=true] span[aria-hidden]:empty");
       return {
         words: look(strong, "color"), behind: look(strong, "backgroundColor"),
         chosen: look(chosen, "backgroundColor"), other: look(views.find(view => view !== chosen), "backgroundColor"),
         lamp: look(lamp, "backgroundColor"), lampBehind: look(lamp.parentElement, "backgroundColor"),
         ink: getComputedStyle(document.documentElement).getPropertyValue("--ink").trim(),
       };`,
    );
    expect(looks.words).not.toBe(looks.behind);
    expect(looks.chosen).not.toBe(looks.other);
    expect(looks.lamp).not.toBe(looks.lampBehind);
    expect(looks.ink).toBe("CanvasText");
  } finally {
    await emulate([]);
  }
});

test("a kit from a goal, a number, a replay, a check and a file take fewer than 60 keys and no pointer", async () => {
  let keys = 0;
  const type = async (...list: readonly string[]) => {
    keys += list.length;
    await driver
      .actions()
      .sendKeys(...list)
      .perform();
  };
  const focused = () =>
    driver.executeScript<string>(
      "const now = document.activeElement; return `${now.ariaLabel ?? ''} ${now.innerText ?? ''}`",
    );
  /** Presses a key until what has the focus is called so. */
  const goTo = async (words: RegExp, key: string) => {
    for (let k = 0; k < 30; k++) {
      await type(key);
      if (words.test(await focused())) return;
    }
    throw new Error(`the focus did not come to ${words}, but to ${await focused()}`);
  };
  await openNewKit(session);
  await find(driver, 'ul[aria-label="What can be built"]');
  await goTo(/A jump/, Key.TAB);
  await type(Key.ENTER);
  await goTo(/Build it/, Key.TAB);
  await type(Key.ENTER);
  await find(driver, "[data-testid=stage]");
  await waitFor(driver, "the focus on the view", () =>
    driver.executeScript<boolean>("return document.activeElement.tagName === 'MAIN'"),
  );
  await goTo(/^ ?Numbers/, Key.F6);
  await goTo(/^launch speed/, Key.TAB);
  await type("2", "2", Key.ENTER);
  await keptKit(driver, "the number", kit => JSON.stringify(kit).includes('"leap":22'));
  await goTo(/^Tape of/, Key.F6);
  await type(" ");
  await find(driver, '//button[normalize-space(.)="Stop"]');
  await type("k");
  await waitFor(driver, "a check", async () =>
    (await textOf(driver, "header")).includes("1 of 1 check holds"),
  );
  await goTo(/to the shelf/, Key.F6);
  await goTo(/^ ?Hand over/, Key.TAB);
  await type(Key.ENTER);
  await find(driver, 'section[aria-label="Files"]');
  await goTo(/^ ?All in one/, Key.F6);
  await goTo(/^Create the zip/, Key.TAB);
  await type(Key.ENTER);
  await find(driver, '//button[starts-with(@aria-label, "Save file ")]');
  await goTo(/^Save file /, Key.TAB);
  await type(Key.ENTER);
  await readSaved(session, /\.zip$/);
  expect(keys, "keys").toBeLessThan(60);
});
