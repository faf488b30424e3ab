import { spawn, type ChildProcess } from "node:child_process";
import { Key, type WebDriver } from "selenium-webdriver";
import { afterEach, beforeEach, expect, test } from "vitest";
import {
  clickOn,
  find,
  freePort,
  openBrowser,
  openDemo,
  openRule,
  press,
  startApp,
  textOf,
  typeOver,
  waitFor,
  waitUntilFetched,
  type Page,
  openAnother,
} from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;
let game: ChildProcess | undefined;

beforeEach(() => {
  driver = session.driver;
});
afterEach(() => void game?.kill());

const BAR = 'section[aria-label="Live link"]';

/** Opens the demo and a link for it; returns the code. */
async function openLink(page: Page): Promise<string> {
  await openDemo(page, "belfry-runner");
  await press(page.driver, "Link a game");
  return waitFor(
    page.driver,
    "a code",
    async () => /code\s*(\S{4}-\S{2})/.exec(await textOf(page.driver, BAR))?.[1],
  );
}

const linkedFrame = async (at: WebDriver) =>
  Number(/(\d+)f/.exec(await textOf(at, "[data-testid=live-frame]").catch(() => ""))?.[1] ?? -1);

/** Presses leap in quick succession in the game's window, until something was performed; returns all that was. */
async function leapUntil(
  what: string,
  isIt: (seen: readonly string[]) => boolean,
): Promise<readonly string[]> {
  await driver.executeScript("window.seen = []");
  return waitFor(
    driver,
    what,
    async () => {
      const hands = driver.actions();
      for (let n = 0; n < 12; n++) hands.keyDown(" ").pause(25).keyUp(" ").pause(30);
      await hands.perform();
      const seen = await driver.executeScript<string[]>("return window.seen");
      return isIt(seen) && seen;
    },
    60_000,
  );
}

test("a game in a second window is played by keys; an edit changes its next leap, and a reload follows on", async () => {
  const code = await openLink(session);
  const page = await driver.getWindowHandle();
  await openAnother(driver, "window");
  const window = await driver.getWindowHandle();
  await driver.get(`${session.address}/game/?code=${code.toLowerCase()}`);
  await driver.executeScript(`window.seen = [];
    new MutationObserver(() => window.seen.push(document.getElementById("last").textContent))
      .observe(document.getElementById("last"), { childList: true });`);
  await (await find(driver, "#player")).sendKeys("Ines", Key.ENTER);
  await waitFor(driver, "joined", async () => (await textOf(driver, "#state")).startsWith("playing"));
  await leapUntil("a leap from the buffer", seen => seen.some(text => text.endsWith("hop, buffer")));

  await driver.switchTo().window(page);
  expect(await textOf(driver, BAR)).toMatch(/A game to link plays, 60 frames a second, by these rules/);
  const before = await waitFor(driver, "frames on the page", async () => {
    const frame = await linkedFrame(driver);
    return frame > 60 && frame;
  });
  await openRule(driver, "Hop");
  await typeOver(driver, "buffer", "0f");
  await press(driver, "Play");
  await waitFor(driver, "the edit in force", async () =>
    /last edit in force at \d+f, after \d+ ms/.test(await textOf(driver, 'section[aria-label="Pad"]')),
  );

  await driver.switchTo().window(window);
  const seen = await leapUntil(
    "leaps without a buffer",
    all => all.filter(text => text.includes(" hop,")).length > 3,
  );
  expect(seen.filter(text => text.endsWith("hop, buffer"))).toEqual([]);

  await driver.switchTo().window(page);
  await driver.get(`${new URL(await driver.getCurrentUrl()).href.replace(/\?.*$/, "")}?offline=tab`);
  await waitFor(driver, "the game after a reload", async () => (await linkedFrame(driver)) > before);
  await driver.switchTo().window(window);
  await driver.close();
  await driver.switchTo().window(page);
  await waitFor(driver, "the take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).startsWith("Take 5"),
  );
  expect(Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=open-take]"))![1])).toBeGreaterThan(before);
  expect(await textOf(driver, BAR)).toContain("type the code in your game");
  // By now the other views are fetched, so that they open without the server, also while a game plays.
  await waitUntilFetched(driver, "kit.prove-", "kit.tune-");
  await press(driver, "End the link");
});

/** Starts the game that plays itself. */
function playItself(address: string, code: string, ...more: readonly string[]) {
  const url = `${address.replace("http", "ws")}/link`;
  game = spawn(process.execPath, ["game/main.mjs", "--url", url, "--code", code, ...more], {
    stdio: "ignore",
  });
}

test("a fault of the game's own input code is named on the tape and in Prove, and becomes a check", async () => {
  const code = await openLink(session);
  playItself(session.address, code, "--fault", "coyote+1", "--frames", "900", "--fast");
  await press(driver, "2 differ");
  const list = await textOf(driver, "[data-testid=difference-list]");
  expect(list).toContain(
    "Hop: only the game. In the game it counts by coyote 6f after Footing closed, by the rules for 5f.",
  );
  await clickOn(driver, 'button[aria-label="Check that the rules do as the game: Hop at 514f"]');
  await find(driver, '//*[contains(., "Hop at 514f, as in the game")]');
  await press(driver, "Prove");
  await waitFor(driver, "the sum", async () =>
    /in 1 take: 1\d agreed, 1 apart, 1 only the game, 0 only the rules/.test(
      await textOf(driver, 'section[aria-label="The game beside the rules"]'),
    ),
  );
});

test("of two tabs the one with the pen edits the game and keeps its take, also in the background", async () => {
  const code = await openLink(session);
  const first = await driver.getWindowHandle();
  const address = await driver.getCurrentUrl();
  await openAnother(driver, "tab");
  const second = await driver.getWindowHandle();
  await driver.get(address);
  await find(driver, "[data-testid=pen]");
  playItself(session.address, code);
  await driver.switchTo().window(first);
  const frame = () => linkedFrame(driver);
  await waitFor(driver, "the game in the first tab", async () => (await frame()) > 60);

  await driver.switchTo().window(second);
  await press(driver, "Work on it here");
  const atFirst = await waitFor(driver, "the game in the second tab", async () => {
    const seen = await frame();
    return seen > 60 && seen;
  });
  await openRule(driver, "Hop");
  await typeOver(driver, "buffer", "0f");
  await press(driver, "Play");
  await waitFor(driver, "the edit in force", async () =>
    /last edit in force at \d+f, after \d+ ms/.test(await textOf(driver, 'section[aria-label="Pad"]')),
  );

  // The second tab is in the background while the game leaves.
  await driver.switchTo().window(first);
  await waitFor(driver, "play beyond the edit", async () => (await frame()) > atFirst + 60);
  game!.kill();
  await find(driver, '[aria-label="Takes"] input[value="Take 5"]');
  await driver.switchTo().window(second);
  await find(driver, '[aria-label="Takes"] input[value="Take 5"]');
  expect(await driver.findElements({ css: '[aria-label="Takes"] input[value="Take 6"]' })).toEqual([]);
  expect(Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=open-take]"))![1])).toBeGreaterThan(atFirst);
  await press(driver, "End the link");
  await driver.close();
  await driver.switchTo().window(first);
  await find(driver, "//button[normalize-space(.)='Link a game']");
});

test("a server that ends and starts again is joined by page and game; the take until then is kept", async () => {
  const port = String(await freePort());
  const first = await startApp(port);
  const browser = await openBrowser();
  try {
    const code = await openLink({ driver: browser.driver, address: first.address });
    playItself(first.address, code, "--own");
    await waitFor(browser.driver, "play", async () => (await linkedFrame(browser.driver)) > 60);
    first.stop();
    await waitFor(browser.driver, "away", async () =>
      (await textOf(browser.driver, BAR)).includes("does not answer"),
    );
    // The other views are fetched after 2.5 s; a page without its server must survive that.
    const age = () => browser.driver.executeScript<number>("return performance.now()");
    await waitFor(browser.driver, "some seconds without a server", async () => (await age()) > 4000);
    const second = await startApp(port);
    try {
      await find(browser.driver, '[aria-label="Takes"] input[value="Take 5"]');
      await waitFor(browser.driver, "play again", async () => (await linkedFrame(browser.driver)) > 30);
      expect(await textOf(browser.driver, BAR)).toContain(code);
    } finally {
      second.stop();
    }
  } finally {
    await browser.close();
  }
});
