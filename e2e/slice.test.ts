import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { By, Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { lengthenTake } from "../bench/scenes";
import {
  clickOn,
  find,
  openBelfry,
  openKit,
  openRule,
  openShelf,
  press,
  readSaved,
  textOf,
  waitFor,
  watchMeter,
  openAnother,
  saveFile,
} from "./browser";
import { runFirst } from "./tabPage";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(() => {
  driver = session.driver;
});

async function openDemo(): Promise<void> {
  await openBelfry(session);
}

/** Imports the small kit of the tests from its files, on the shelf, and opens it. */
async function importBelfry(): Promise<void> {
  const files = ["kit", "clean-climb", "sloppy-climb"].map(name => resolve(`e2e/belfry/${name}.json`));
  await (await driver.findElement(By.css("[data-testid=file-picker]"))).sendKeys(files.join("\n"));
  await find(driver, "[data-testid=kit-belfry-runner] a");
  await press(driver, "Close");
  await clickOn(driver, "[data-testid=kit-belfry-runner] a");
  await find(driver, "[data-testid=open-take]");
}

/** Waits until the live session has reached a frame. */
async function waitForFrame(frame: number): Promise<void> {
  await waitFor(
    driver,
    `live frame ${frame}`,
    async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))?.[1]) >= frame,
  );
}

/** Returns the lines of the tape's table: [frame, name, event]. */
async function readTable(): Promise<[number, string, string][]> {
  if ((await driver.findElements(By.css("[data-testid=tape-table]"))).length === 0)
    await press(driver, "As table");
  await find(driver, "[data-testid=tape-table] tbody tr");
  const cells = await driver.executeScript<string[][]>(
    `return [...document.querySelectorAll("[data-testid=tape-table] tbody tr")].map(row => [...row.cells].map(cell => cell.textContent))`,
  );
  return cells.map(([frame, name, words]) => [parseInt(frame!, 10), name!, words!]);
}

const framesOf = (lines: [number, string, string][], name: string, words: string) =>
  lines.filter(line => line[1] === name && line[2] === words).map(line => line[0]);

/** Records a take: the input between waking the pad and Escape. */
async function record(play: () => Promise<void>): Promise<void> {
  await press(driver, "Record a take");
  await waitForFrame(5);
  await play();
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await find(driver, "[data-testid=open-take]");
}

/** Holds a key for at least this many frames of the kit's own clock. */
async function hold(key: string, frames: number): Promise<void> {
  await driver.actions().keyDown(key).perform();
  const from = Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))![1]);
  await waitForFrame(from + frames);
  await driver.actions().keyUp(key).perform();
}

async function lengthField(label: string) {
  return find(driver, `input[aria-label^="${label}"]`);
}

test("hold a key, see it recognised, change the length, reload, and find everything", async () => {
  await openDemo();
  await record(() => hold("k", 30));
  const lines = await readTable();
  const [down] = framesOf(lines, "Brace", "goes down");
  const [up] = framesOf(lines, "Brace", "comes up");
  expect(down).toBeGreaterThan(0);
  expect(up! - down!).toBeGreaterThanOrEqual(30);
  expect(framesOf(lines, "Cling", "fired")).toEqual([down! + 18]);
  expect(framesOf(lines, "Tuck", "lapsed: held too long")).toEqual([down! + 10]);

  await openRule(driver, "Cling");
  const field = await lengthField("length of the hold");
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), "400ms", Key.ENTER);
  expect(framesOf(await readTable(), "Cling", "fired")).toEqual([down! + 24]);
  await field.sendKeys(Key.ARROW_UP);
  await expect.poll(() => field.getAttribute("value")).toBe("416.666ms");
  expect(framesOf(await readTable(), "Cling", "fired")).toEqual([down! + 25]);
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), "20", Key.ENTER);
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), "20f", Key.ENTER);
  await field.sendKeys(Key.TAB);
  await driver
    .actions()
    .move({ origin: field })
    .press()
    .move({ origin: field, x: 30 })
    .move({ origin: field, x: 24 })
    .release()
    .perform();
  await expect
    .poll(async () => await (await lengthField("length of the hold")).getAttribute("value"))
    .toBe("23f");
  expect(framesOf(await readTable(), "Cling", "fired")).toEqual([down! + 23]);
  await press(driver, "Undo");
  await expect
    .poll(async () => await (await lengthField("length of the hold")).getAttribute("value"))
    .toBe("20f");
  await press(driver, "Redo");

  await waitFor(driver, "the change is stored", () =>
    driver.executeAsyncScript<boolean>(`const done = arguments[0]; const open = indexedDB.open("moss-tap"); open.onsuccess = () => {
      const get = open.result.transaction("kits").objectStore("kits").get("belfry-runner");
      get.onsuccess = () => done(JSON.stringify(get.result).includes('"for":"23f"'));
    };`),
  );
  await driver.navigate().refresh();
  await openRule(driver, "Cling");
  await expect
    .poll(async () => await (await lengthField("length of the hold")).getAttribute("value"))
    .toBe("23f");
  await press(driver, "Play");
  await press(driver, "Open Take 3");
  expect(framesOf(await readTable(), "Cling", "fired")).toEqual([down! + 23]);
});

test("a hold released too soon lapses, and a short one is a tap", async () => {
  await openDemo();
  await record(async () => {
    for (const frame of [30, 60, 90, 120]) {
      await driver.actions().keyDown("k").keyUp("k").perform();
      await waitForFrame(frame);
    }
  });
  const lines = await readTable();
  const ups = framesOf(lines, "Brace", "comes up");
  const downs = framesOf(lines, "Brace", "goes down");
  const short = ups.filter((up, at) => up - downs[at]! <= 9);
  expect(short.length, "a busy machine may stretch a tap, not all of them").toBeGreaterThan(0);
  expect(framesOf(lines, "Tuck", "fired")).toEqual(short);
  expect(framesOf(lines, "Cling", "lapsed: let go too soon")).toEqual(
    ups.filter((up, at) => up - downs[at]! < 18),
  );
});

test("kit and take are exported and imported", async () => {
  await openDemo();
  const before = await readTable();
  await press(driver, "Hand over");
  const files = ["belfry-runner.kit.json", "clean-climb.take.json", "sloppy-climb.take.json"];
  for (const file of files) {
    await saveFile(driver, "Documents", file);
    await readSaved(session, file);
  }
  const kit = JSON.parse((await readSaved(session, files[0]!)).toString());
  expect(kit).toEqual(JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")));

  await press(driver, "Moss Tap: to the shelf");
  await press(driver, "Delete Belfry Runner");
  await waitFor(
    driver,
    "an empty shelf",
    async () => (await driver.findElements(By.css("[data-testid=kit-belfry-runner]"))).length === 0,
  );
  const picker = await driver.findElement(By.css("[data-testid=file-picker]"));
  await picker.sendKeys(files.map(name => join(session.downloads, name)).join("\n"));
  await clickOn(driver, "[data-testid=kit-belfry-runner] a");
  await find(driver, "[data-testid=open-take]");
  await expect.poll(readTable).toEqual(before);
});

test("an invalid file is refused with reason and place, and the shelf is unchanged", async () => {
  await openDemo();
  await press(driver, "Moss Tap: to the shelf");
  await find(driver, "[data-testid=kit-belfry-runner]");
  const folder = join(session.downloads, "bad");
  mkdirSync(folder);
  const kit = JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8"));
  kit.patterns[1].for = "12";
  kit.colour = "green";
  writeFileSync(join(folder, "odd.json"), JSON.stringify(kit));
  writeFileSync(join(folder, "torn.json"), '{"format": "moss-tap/kit", ');
  writeFileSync(join(folder, "new.json"), JSON.stringify({ ...kit, version: 9 }));
  const picker = await driver.findElement(By.css("[data-testid=file-picker]"));
  await picker.sendKeys(["odd.json", "torn.json", "new.json"].map(name => join(folder, name)).join("\n"));
  const board = await waitFor(driver, "three refusals", async () => {
    const words = await textOf(driver, "[role=status]");
    return words.includes("3 files were not read") && words;
  });
  expect(board).toContain("patterns[1].for: '12' is not a length: write 12f or 200ms");
  expect(board).toContain("colour: 'colour' is not a field here");
  expect(board).toContain("is not JSON");
  expect(board).toContain("version 9 is newer than 1");
  await expect
    .poll(async () => (await driver.findElements(By.css('ul[aria-label="Kits"] > li'))).length)
    .toBe(1);
});

test("without its server, a shelf that has not loaded its readers refuses a file, and reads it once its page is loaded again", async () => {
  await openDemo();
  await driver.get(session.address);
  await find(driver, "[data-testid=kit-belfry-runner]");
  const block = (urls: readonly string[]) =>
    session.driver.sendDevToolsCommand("Network.setBlockedURLs", { urls: [...urls] });
  await session.driver.sendDevToolsCommand("Network.enable", {});
  await block(["*/assets/*.js"]);
  const picker = await driver.findElement(By.css("[data-testid=file-picker]"));
  const kit = resolve("e2e/belfry/kit.json");
  await picker.sendKeys(kit);
  await find(driver, '//*[@role="status"]//*[contains(., "Load the page again when the server runs")]');
  await press(driver, "Save files of Belfry Runner");
  await find(driver, '//*[@role="status"]//*[contains(., "Belfry Runner was not saved as a file")]');
  await block([]);
  await driver.navigate().refresh();
  await find(driver, "[data-testid=kit-belfry-runner]");
  await (await driver.findElement(By.css("[data-testid=file-picker]"))).sendKeys(kit);
  await find(driver, '//*[@role="status"]//*[contains(., "is on the shelf already")]');
  await press(driver, "Save files of Belfry Runner");
  await expect.poll(() => readdirSync(session.downloads)).toEqual(["belfry-runner.zip"]);
  await block(["*/assets/chart*.js"]);
  await driver.get(`${session.address}/kit/belfry-runner/shape?rule=move%3Ahop`);
  await find(
    driver,
    '//*[@role="status"][contains(., "The chart is not drawn. Part of this page could not")]',
  );
  await block([]);
  // Chromium logs each blocked request.
  await driver.manage().logs().get("browser");
});

async function rawKey(type: "keyDown" | "keyUp", autoRepeat: boolean): Promise<void> {
  const cdp = driver as WebDriver & { sendDevToolsCommand: (name: string, params: object) => Promise<void> };
  await cdp.sendDevToolsCommand("Input.dispatchKeyEvent", {
    type,
    code: "KeyK",
    key: "k",
    windowsVirtualKeyCode: 75,
    autoRepeat,
  });
}

test("a storm of repeats is one press; the repeats are counted", async () => {
  await openDemo();
  await press(driver, "Wire");
  await press(driver, "Start listening");
  await waitForFrame(3);
  await rawKey("keyDown", false);
  for (let k = 0; k < 50; k++) await rawKey("keyDown", true);
  await expect.poll(() => textOf(driver, "[data-testid=repeats]")).toBe("50 repeats dropped");
  await waitFor(
    driver,
    "the key is held",
    async () => parseInt(await textOf(driver, "[data-testid=held-brace]"), 10) > 0,
  );
  await press(driver, "Play");
  await rawKey("keyUp", false);
  const ticker = await waitFor(
    driver,
    "a result",
    async () => (await textOf(driver, "[data-testid=ticker]")) || false,
  );
  expect(ticker.match(/Cling/g)?.length).toBe(1);
});

test("losing focus during a hold releases everything, and the clock waits", async () => {
  await openDemo();
  await press(driver, "Wire");
  await press(driver, "Start listening");
  await waitForFrame(3);
  await rawKey("keyDown", false);
  await waitFor(
    driver,
    "the key is held",
    async () => parseInt(await textOf(driver, "[data-testid=held-brace]"), 10) > 3,
  );
  const tab = await driver.getWindowHandle();
  await openAnother(driver, "tab");
  await driver.switchTo().window(tab);
  await waitFor(
    driver,
    "the control is up",
    async () => (await textOf(driver, "[data-testid=held-brace]")) === "up",
  );
  await expect.poll(() => textOf(driver, '[aria-label="Raw events"]')).toContain("all let go: focus lost");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Start listening");
});

test("with all data of the site blocked a notice appears at once, and work and export continue", async () => {
  await runFirst(
    driver,
    `IDBFactory.prototype.open = () => { throw new DOMException("no", "SecurityError") };
     LockManager.prototype.request = () => Promise.reject(new DOMException("no", "SecurityError"));
     for (const name of ["localStorage", "sessionStorage"])
       Object.defineProperty(window, name, { configurable: true, get() { throw new DOMException("no", "SecurityError") } });`,
  );
  await openShelf(session);
  await find(driver, "[data-testid=not-kept]");
  await importBelfry();
  await openRule(driver, "Cling");
  await (await lengthField("length of the hold")).sendKeys(Key.ARROW_UP);
  await press(driver, "Hand over");
  await saveFile(driver, "Documents", "belfry-runner.kit.json");
  const file = join(session.downloads, "belfry-runner.kit.json");
  const kit = await waitFor(
    driver,
    "the file",
    async () => JSON.parse(readFileSync(file, "utf8")) as { patterns: { for?: string }[] },
  );
  expect(kit.patterns[1]!.for).toBe("19f");
  await driver.navigate().refresh();
  await find(driver, '//h1[.="No storage to look in"]');
});

test("a control is bound by pressing its new key, and Escape leaves", async () => {
  await openDemo();
  await press(driver, "Wire");
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().sendKeys("j").perform();
  await find(driver, '[aria-label="Take J off Brace"]');
  await press(driver, "Play");
  await record(() => hold("j", 20));
  expect(framesOf(await readTable(), "Cling", "fired").length).toBe(1);
});

test("the meter is alive on every frame, the tape steps by keys, and shortcuts sleep while the pad is awake", async () => {
  await openDemo();
  await press(driver, "Record a take");
  await waitForFrame(3);
  const ratiosOf = await watchMeter(driver, "cling");
  await driver.actions().keyDown("k").perform();
  const ratios = await ratiosOf();
  expect(ratios.filter(ratio => ratio > 0 && ratio < 1).length).toBeGreaterThan(1);
  await driver.actions().keyUp("k").sendKeys(Key.ARROW_RIGHT, Key.ESCAPE).perform();
  const tape = await find(driver, "[data-testid=tape]");
  await waitFor(driver, "a kept take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Take 3"),
  );
  await expect.poll(() => textOf(driver, "[data-testid=playhead]")).toBe("0f");
  await tape.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_LEFT);
  await expect.poll(() => textOf(driver, "[data-testid=playhead]")).toBe("2f");
  await tape.click();
  // The card follows the pointer; a re-render below a resting pointer removes it.
  let x = 0;
  await waitFor(driver, "the card of a frame", async () => {
    await driver
      .actions()
      .move({ origin: tape, x: (x = 5 - x) })
      .perform();
    const [card] = await driver.findElements({ css: "[data-testid=frame-card]" });
    return card && /^\d+f/.test(await card.getText());
  });
});

test("a card without a picture gives the reason: no take, or a long one", async () => {
  const read = (name: string) =>
    JSON.parse(readFileSync(`demo/clapper-duel/${name}.json`, "utf8")) as unknown;
  const kit = read("kit") as Kit;
  const card = (id: string) => textOf(driver, `[data-testid=kit-${id}]`);
  await openKit(session, { ...kit, id: "bare" });
  await press(driver, "Moss Tap: to the shelf");
  await expect.poll(() => card("bare")).toContain("no take yet");
  await openKit(session, kit, [lengthenTake(read("1-clean-bout") as Take, 72_000)]);
  await press(driver, "Moss Tap: to the shelf");
  await expect.poll(() => card(kit.id)).toContain("a long take, 20 min");
});

test("a missing kit has a page with a way home", async () => {
  await driver.get(`${session.address}/kit/nowhere/play`);
  await waitFor(driver, "the word", async () => (await textOf(driver, "main")).includes('No kit "nowhere"'));
  await press(driver, "Back to the shelf");
  await find(driver, 'ul[aria-label="Demos"]');
  await driver.manage().logs().get("browser");
});

test("while the storage does not answer no kit is called missing: kit and shelf are shown when it does", async () => {
  await openBelfry(session);
  const address = await driver.getCurrentUrl();
  await runFirst(
    driver,
    `navigator.locks?.request("moss-tap-storage", () => new Promise(resolve => (window.answerNow = resolve)))`,
  );
  await driver.get(address);
  await find(driver, '//h1[.="Waiting for the browser\'s storage"]');
  await find(driver, "[data-testid=not-kept]");
  await driver.executeScript("answerNow()");
  await find(driver, "[data-testid=open-take]");
  await expect.poll(() => driver.findElements(By.css("[data-testid=not-kept]"))).toEqual([]);
  await driver.get(session.address);
  await find(driver, '//p[contains(., "Your kits appear here")]');
  await driver.executeScript("answerNow()");
  await find(driver, '//ul[@aria-label="Kits"]//*[contains(., "Belfry Runner")]');
});

test("an unreadable kit does not break the shelf: its card saves it raw and deletes it", async () => {
  await openDemo();
  await driver.get(new URL("/", await driver.getCurrentUrl()).href);
  await find(driver, "[data-testid=kit-belfry-runner]");
  await driver.executeAsyncScript(`
    const done = arguments[0];
    indexedDB.databases().then(([{ name }]) => {
      const opening = indexedDB.open(name);
      opening.onsuccess = () => {
        const write = opening.result.transaction("kits", "readwrite");
        const kits = write.objectStore("kits");
        kits.get("belfry-runner").onsuccess = event => {
          const bad = event.target.result;
          bad.kit.patterns[0] = { id: "coil", name: "Coil", kind: "charge", control: "leap", full: "9f", fire: "release", output: [1e300, 1e300] };
          kits.put(bad);
        };
        write.oncomplete = () => done();
      };
    });
  `);
  await driver.navigate().refresh();
  const card = await find(driver, "[data-testid=broken-kit]");
  await expect.poll(() => card.getText()).toMatch(/This kit cannot be read.*1e\+300 is out of reach/s);
  await clickOn(driver, '[aria-label^="Save "][aria-label$=" as it is"]');
  await clickOn(driver, '[data-testid=broken-kit] [aria-label^="Delete "]');
  await waitFor(
    driver,
    "an empty place",
    async () => (await driver.findElements(By.css("[data-testid=broken-kit]"))).length === 0,
  );
  await press(driver, "Open demo Belfry Runner");
  await find(driver, "[data-testid=open-take]");
});
