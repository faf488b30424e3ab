import { spawnSync } from "node:child_process";
import { Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import {
  clickOn,
  find,
  keptKit,
  openBelfry,
  openBrowser,
  openDemo,
  press,
  startApp,
  textOf,
  waitFor,
  waitUntilFetched,
  openAnother,
  openForm,
  chooseRule,
} from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(async () => {
  driver = session.driver;
  await openBelfry(session);
});

/** Opens the current page in another tab of the same browser, and returns both handles. */
async function openTwin(): Promise<{ first: string; second: string }> {
  const first = await driver.getWindowHandle();
  const address = await driver.getCurrentUrl();
  await openAnother(driver, "tab");
  await driver.get(address);
  const second = await driver.getWindowHandle();
  return { first, second };
}

const show = (handle: string) => driver.switchTo().window(handle);

async function setHold(frames: number): Promise<void> {
  await press(driver, "Shape");
  await chooseRule(driver, "Cling");
  const stone = await find(driver, 'input[aria-label^="length of the hold"]');
  await stone.sendKeys(Key.chord(Key.CONTROL, "a"), String(frames), Key.ENTER);
  await waitForHold(frames);
}

async function waitForHold(frames: number): Promise<void> {
  await waitFor(driver, `a hold of ${frames}f`, async () => {
    const stone = await find(driver, 'input[aria-label^="length of the hold"]');
    return (await stone.getAttribute("value")) === `${frames}f`;
  });
}

test("two tabs on one kit: one writes, the other follows live and takes over with one click without losses", async () => {
  await setHold(25);
  const { first, second } = await openTwin();
  await waitForHold(25);
  await find(driver, "[data-testid=pen]");
  await show(first);
  await setHold(31);
  await show(second);
  await waitForHold(31);
  await press(driver, "Work on it here");
  await waitFor(
    driver,
    "the pen",
    async () => (await driver.findElements({ css: "[data-testid=pen]" })).length === 0,
  );
  await setHold(44);
  await show(first);
  await find(driver, "[data-testid=pen]");
  await waitForHold(44);
  await driver.navigate().refresh();
  await waitForHold(44);
});

test("a kit deleted in another tab is reported, stays open, and is restored by a click", async () => {
  const { first, second } = await openTwin();
  await press(driver, "Moss Tap: to the shelf");
  await press(driver, "Delete Belfry Runner");
  await waitFor(
    driver,
    "an empty shelf",
    async () => (await driver.findElements({ css: "[data-testid=kit-belfry-runner]" })).length === 0,
  );
  await show(first);
  await waitFor(driver, "the word", async () =>
    (await textOf(driver, "[aria-label=Notices]")).includes("was deleted in another tab"),
  );
  await press(driver, "Put it back");
  await show(second);
  await driver.navigate().refresh();
  await find(driver, "[data-testid=kit-belfry-runner]");
});

test("leaving the page while a recording runs asks first; what was recorded is offered again", async () => {
  await press(driver, "Record a take");
  await driver.actions().keyDown("k").perform();
  await waitFor(
    driver,
    "four seconds",
    async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))?.[1]) > 250,
  );
  expect(
    await driver.executeScript<boolean>(
      `const leaving = new Event("beforeunload", { cancelable: true }); window.dispatchEvent(leaving); return leaving.defaultPrevented;`,
    ),
  ).toBe(true);
  await driver.actions().keyUp("k").perform();
  // Reloads without asking, as in a crash.
  await driver.executeScript("location.reload()").catch(() => undefined);
  await driver
    .switchTo()
    .alert()
    .then(alert => alert.accept())
    .catch(() => undefined);
  await waitFor(driver, "the offer", async () =>
    /A recording of \d+\.\d s was cut off/.test(await textOf(driver, "[aria-label=Notices]")),
  );
  await press(driver, "Keep it as a take");
  await waitFor(driver, "the take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Cut off"),
  );
});

/** Returns the frames of the open recording that are stored. */
const storedFrames = (of: WebDriver) =>
  of.executeAsyncScript<number>(
    `const done = arguments[0];
     const open = indexedDB.open("moss-tap");
     open.onsuccess = () => {
       const all = open.result.transaction("recordings").objectStore("recordings").getAll();
       all.onsuccess = () => { open.result.close(); done(Math.max(0, ...all.result.map(({ frames }) => frames))); };
     };`,
  );

test("an edit and a recording survive a killed browser", async () => {
  const app = await startApp();
  let browser = await openBrowser();
  const killed = browser;
  const one = browser.driver;
  await openBelfry({ driver: one, address: app.address });
  await press(one, "Record a take");
  await press(one, "Shape");
  await chooseRule(one, "Cling");
  await waitFor(one, "two stored seconds", async () => (await storedFrames(one)) > 120);
  const stone = await find(one, 'input[aria-label^="length of the hold"]');
  await one.executeScript(
    `arguments[0].focus(); arguments[0].dispatchEvent(new WheelEvent("wheel", { deltaY: -1, bubbles: true, cancelable: true }))`,
    stone,
  );
  const length = await stone.getAttribute("value");
  await keptKit(one, "the edit", ({ patterns }) =>
    patterns.some(pattern => pattern.id === "cling" && "for" in pattern && pattern.for === length),
  );
  spawnSync("pkill", ["-9", "-f", killed.home]);
  await killed.driver.quit().catch(() => undefined);
  browser = await openBrowser(killed.home);
  try {
    await browser.driver.get(app.address);
    await clickOn(browser.driver, "[data-testid=kit-belfry-runner] a");
    await waitFor(browser.driver, "the offer", async () =>
      /A recording of [1-9]\.\d s/.test(await textOf(browser.driver, "[aria-label=Notices]")),
    );
    await press(browser.driver, "Shape");
    await chooseRule(browser.driver, "Cling");
    const kept = await find(browser.driver, 'input[aria-label^="length of the hold"]');
    await expect.poll(() => kept.getAttribute("value")).toBe(length);
  } finally {
    await browser.close();
    app.stop();
  }
});

test("a kit opens from the shelf after the server has stopped", async () => {
  const app = await startApp();
  try {
    await openDemo({ driver, address: app.address }, "belfry-runner", "play");
    await driver.get(`${app.address}/?offline=tab`);
    await waitUntilFetched(driver, "kit-", "kit.play-", "kit.tune-");
    app.stop();
    await clickOn(driver, "[data-testid=kit-belfry-runner] a");
    await find(driver, "[data-testid=stage]");
    await press(driver, "Tune");
    await find(driver, "[data-testid=tune]");
    await driver.manage().logs().get("browser");
  } finally {
    app.stop();
  }
});

test("all views open after the server has stopped", async () => {
  const app = await startApp();
  try {
    await openDemo({ driver, address: app.address }, "belfry-runner", "play");
    await driver.get(`${app.address}/kit/belfry-runner/play?offline=tab`);
    const views = ["wire", "shape", "tune", "prove", "handOver"].map(view => `kit.${view}-`);
    await waitUntilFetched(driver, ...views, "makeFiles-", "/player/parts.json");
    app.stop();
    for (const view of ["Wire", "Shape", "Tune", "Prove", "Hand over"]) {
      await press(driver, view);
      await find(driver, `//nav[@aria-label="Views"]//a[@aria-current="page" and contains(., "${view}")]`);
      await find(driver, "main > *");
    }
    await openForm(driver, "Runtime");
    await find(driver, '//li[contains(., "moss-tap-runtime.mjs")]');
    const logs = await driver.manage().logs().get("browser");
    expect(logs.filter(({ message }) => !message.includes("ERR_CONNECTION_REFUSED"))).toEqual([]);
  } finally {
    app.stop();
  }
});
