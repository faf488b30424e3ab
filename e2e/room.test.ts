import { Key } from "selenium-webdriver";
import { expect, test } from "vitest";
import type { Kit } from "#core";
import { find, forgetScripts, openDemo, openKit, press, waitFor } from "./browser";
import { useSession } from "./session";

const session = useSession();

/** Returns the share of an element in the area of the window. */
const shareOf = (where: string) =>
  session.driver.executeScript<number>(
    `const { width, height } = document.querySelector(arguments[0]).getBoundingClientRect();
     return (width * height) / (innerWidth * innerHeight);`,
    where,
  );

test("as delivered, what a view is for has most of the window; a chosen height is kept for that view", async () => {
  const { driver } = session;
  // Without the tall docks of the other tests.
  await forgetScripts(driver);
  await openDemo(session, "belfry-runner", "play");
  await find(driver, "[data-testid=stage]");
  expect(await shareOf("[data-testid=stage]")).toBeGreaterThan(0.45);
  const stagePx = await driver.executeScript<number>(
    `return document.querySelector("[data-testid=stage]").getBoundingClientRect().height`,
  );
  expect(stagePx).toBeGreaterThanOrEqual(480);
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
    await find(driver, where);
    expect(await shareOf(where), view).toBeGreaterThan(share);
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

test("twelve controls fit on Wire, one of them with a name of sixty letters", async () => {
  const { driver } = session;
  await forgetScripts(driver);
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
