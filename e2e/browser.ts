import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { error, Key, Session as DriverSession, type WebDriver, type WebElement } from "selenium-webdriver";
import { Driver, Options, ServiceBuilder } from "selenium-webdriver/chrome.js";
// @ts-expect-error Its types know this module by another path.
import { Executor, HttpClient } from "selenium-webdriver/http/index.js";
import type { Check, Checks, Kit, Take } from "#core";
import { changeOf } from "../app/storage/kitWrite";
import { DEFAULT_SETTINGS } from "../app/storage/records";
import { documentOf } from "../app/storage/shelf";
import { goWithin, replaceRecords, startsWithin } from "./tabPage";

/** Far longer than anything takes, on a busy machine too; several fit into the limit of a test. */
const PATIENCE_MS = 60_000;
const LOOK_EVERY_MS = 50;

export const FLAGS = [
  "--headless=new",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--disable-extensions",
  "--disable-component-extensions-with-background-pages",
  "--disable-default-apps",
  "--disable-breakpad",
  "--disable-hang-monitor",
  "--disable-client-side-phishing-detection",
  "--disable-features=Translate,OptimizationHints,MediaRouter,DialMediaRouteProvider,AutofillServerCommunication,InterestFeedContentSuggestions,CalculateNativeWinOcclusion,SpareRendererForSitePerProcess,BackForwardCache,HttpsUpgrades,PaintHolding",
  "--metrics-recording-only",
  "--mute-audio",
];

export async function freePort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });
}

/** Starts the built application, on a free port by default; resolves with its address when it is ready. */
export async function startApp(given?: string): Promise<{ address: string; pid: number; stop: () => void }> {
  const port = given ?? String(await freePort());
  const server: ChildProcess = spawn(process.execPath, ["bin/serve.mjs"], {
    env: { ...process.env, PORT: port },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on("data", text => String(text).includes("ready at") && resolve());
    server.on("exit", code => reject(new Error(`the server stopped with ${code}`)));
  });
  return { address: `http://127.0.0.1:${port}`, pid: server.pid!, stop: () => server.kill("SIGTERM") };
}

/** An open Chromium, as plain data that another process can attach to. */
export interface OpenBrowser {
  readonly server: string;
  readonly sessionId: string;
  readonly home: string;
  readonly downloads: string;
  /** The host and port at which it answers DevTools commands. */
  readonly devTools: string;
}

/** A tab of a browser, and the address at which the application is served. */
export interface Page {
  readonly driver: WebDriver;
  readonly address: string;
}

/** Opens a Chromium with a folder for downloads, in a new or an earlier home folder. */
export async function openBrowser(
  home = mkdtempSync(join(tmpdir(), "moss-tap-")),
): Promise<OpenBrowser & { driver: Driver; close: () => Promise<void> }> {
  const downloads = join(home, "downloads");
  mkdirSync(downloads, { recursive: true });
  const options = new Options();
  options.addArguments(...FLAGS, `--user-data-dir=${join(home, "profile")}`, "--window-size=700,300");
  options.setBinaryPath("/usr/bin/chromium");
  options.setUserPreferences({
    "download.default_directory": downloads,
    "download.prompt_for_download": false,
    "profile.default_content_setting_values.automatic_downloads": 1,
  });
  const service = new ServiceBuilder("/usr/bin/chromedriver").build();
  const server = await service.start();
  const driver = Driver.createSession(options, service) as Driver;
  await measurePage(driver);
  const close = async () => {
    await driver.quit();
    rmSync(home, { recursive: true, force: true });
  };
  const sessionId = (await driver.getSession()).getId();
  const { debuggerAddress } = (await driver.getCapabilities()).get("goog:chromeOptions") as {
    debuggerAddress: string;
  };
  return { server, sessionId, home, downloads, devTools: debuggerAddress, driver, close };
}

/** Returns the driver of a browser that another process has opened. */
export function attachTo({ server, sessionId }: OpenBrowser): Driver {
  const executor = new Executor(Promise.resolve(new HttpClient(server)));
  executor.w3c = true;
  executor.defineCommand("sendDevToolsCommand", "POST", "/session/:sessionId/chromium/send_command");
  executor.defineCommand(
    "sendAndGetDevToolsCommand",
    "POST",
    "/session/:sessionId/chromium/send_command_and_get_result",
  );
  return new Driver(new DriverSession(sessionId, {}), executor);
}

/** Opens another tab or window and switches to it; its page is as large as the others. */
export async function openAnother(driver: WebDriver, type: "tab" | "window"): Promise<void> {
  await driver.switchTo().newWindow(type);
  await measurePage(driver as Driver);
}

/** Sets the page of the current tab to 1280×800. */
export async function measurePage(driver: Driver): Promise<void> {
  await driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
    width: 1280,
    height: 800,
    deviceScaleFactor: 1,
    mobile: false,
  });
}

// Waits inside the page, in few round trips: a second at a time, so that a navigation cannot lose the wait.
const WAIT_FOR_FIRST = `const [where, readName, done] = arguments;
  const pointOf = element => {
    element.scrollIntoViewIfNeeded();
    const box = element.getClientRects()[0];
    if (element.disabled || !box) return null;
    const middle = (from, to, end) => Math.floor((Math.max(from, 0) + Math.min(to, end)) / 2);
    const point = { x: middle(box.left, box.right, innerWidth), y: middle(box.top, box.bottom, innerHeight) };
    const hit = document.elementFromPoint(point.x, point.y);
    return hit && (element.contains(hit) || hit.contains(element)) ? point : null;
  };
  const textOf = element => (element.innerText ?? element.textContent).replace(/[ \\t]+/g, " ").replace(/ \\n/g, "\\n").trim();
  const read = { element: element => element, text: textOf, point: pointOf }[readName];
  const look = () => {
    const first = where.startsWith("/")
      ? document.evaluate(where, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE).singleNodeValue
      : document.querySelector(where);
    return first?.checkVisibility({ opacityProperty: true, visibilityProperty: true }) ? read(first) : null;
  };
  const isAt = (a, b) => a.x === b.x && a.y === b.y;
  const until = performance.now() + 1000;
  let earlier;
  const turn = () => {
    const found = look();
    // A point must be the same for two pictures: what moves is not clicked.
    const isReady = found !== null && (readName !== "point" || (earlier && isAt(earlier, found)));
    if (isReady || performance.now() > until) return done(isReady ? found : null);
    earlier = found;
    if (found !== null) requestAnimationFrame(turn);
    else setTimeout(turn, 20);
  };
  turn();`;

/** Reads an element as soon as it is visible: itself, its text, or the point at which a click hits it. */
async function readFirst<T>(
  driver: WebDriver,
  where: string,
  read: "element" | "text" | "point",
): Promise<T> {
  for (const untilMs = Date.now() + PATIENCE_MS; Date.now() < untilMs;) {
    try {
      const found = await driver.executeAsyncScript<T | null>(WAIT_FOR_FIRST, where, read);
      if (found !== null) return found;
    } catch (trouble) {
      // The page changed meanwhile.
      if (!(trouble instanceof error.JavascriptError && trouble.message.includes("unloaded"))) throw trouble;
      await new Promise(resolve => setTimeout(resolve, LOOK_EVERY_MS));
    }
  }
  // Of the view: the header is the same on all pages.
  const shown = await driver.executeScript(
    "return `${location.pathname + location.search}: ${(document.querySelector('main') ?? document.body).innerText}`",
  );
  throw new Error(
    `not there, not shown, covered or not enabled: ${where}, on ${String(shown).slice(0, 1500)}`,
  );
}

/** Waits until an element is visible, by a selector or by an XPath that begins with a slash. */
export async function find(driver: WebDriver, where: string): Promise<WebElement> {
  return readFirst(driver, where, "element");
}

/** Clicks an element once it is visible, enabled and not covered; found as by `find`. */
export async function clickOn(driver: WebDriver, where: string): Promise<void> {
  const { x, y } = await readFirst<{ x: number; y: number }>(driver, where, "point");
  // One request, and no wait for a navigation after it: half the time of the driver's own click.
  await driver.actions().move({ x, y, duration: 0 }).press().release().perform();
}

/** Clicks a button or link by its text or its label; a button also by its text before a key, or by its bold words. */
export async function press(driver: WebDriver, words: string): Promise<void> {
  const ways = [
    `normalize-space(.)="${words}"`,
    `@aria-label="${words}"`,
    `(self::button and kbd and normalize-space(text()[1])="${words}")`,
    `(self::button and b and normalize-space(b[1])="${words}")`,
  ];
  await clickOn(driver, `//*[self::button or self::a][${ways.join(" or ")}]`);
}

/** Chooses from a menu: by the beginning of its word's label, and of the choice's text. */
export async function choose(driver: WebDriver, label: string, words: string): Promise<void> {
  await clickOn(driver, `[aria-label^="${label}"]`);
  await clickOn(driver, `//*[@role="menu"]//button[starts-with(normalize-space(.), "${words}")]`);
}

/** Added to addresses so that nothing is fetched ahead or kept for use without the server, which costs half of a page's time. */
const NOT_KEPT = "?offline=off";

const SHELF = 'ul[aria-label="Demos"]';

/** Opens the shelf, and waits until it can be used. */
export async function openShelf({ driver, address }: Page): Promise<void> {
  if (startsWithin(driver)) await goWithin(driver, "/");
  else await driver.get(`${address}/${NOT_KEPT}`);
  await find(driver, SHELF);
}

/**
 * Opens a view of a kit that was not on the shelf before. A page that another test has left on the shelf goes on;
 * otherwise it is one navigation: the kit is left in localStorage like the last edit of a page that was closed, and
 * the application stores it when it starts.
 */
export async function openKit(
  page: Page,
  kit: Kit,
  takes: readonly Take[] = [],
  view = "play",
  checks: readonly Check[] = [],
): Promise<void> {
  const { driver } = page;
  const beside = { rows: DEFAULT_SETTINGS, change: "put there by a test", changedAt: 1 };
  const change = changeOf(undefined, documentOf(kit, takes, checks), beside);
  if (startsWithin(driver)) {
    await replaceRecords(driver, [{ ...change.record, version: 1 }], change.put);
    await goWithin(driver, `/kit/${kit.id}/${view}`);
  } else {
    await setItem(page, `moss-tap-left:test:${kit.id}`, JSON.stringify({ ...change, base: 0 }));
    await driver.get(`${page.address}/kit/${kit.id}/${view}${NOT_KEPT}`);
  }
  if (takes.length > 0) await find(driver, "[data-testid=open-take]");
}

/** Sets an item of the application's localStorage, before its page is loaded or in it. */
export async function setItem({ driver, address }: Page, key: string, value: string): Promise<void> {
  if (!(await driver.getCurrentUrl()).startsWith(address)) await driver.get(`${address}/moss.svg`);
  await driver.executeScript("localStorage.setItem(arguments[0], arguments[1])", key, value);
}

/** Opens a kit of the repository with its checks and all of its takes, in the order of their files. */
async function openFolder(page: Page, folder: string, view?: string): Promise<void> {
  const read = (name: string) => JSON.parse(readFileSync(join(folder, name), "utf8")) as unknown;
  const names = readdirSync(folder).sort();
  const takes = names.filter(name => name !== "kit.json" && name !== "checks.json");
  const checks = names.includes("checks.json") ? (read("checks.json") as Checks).checks : [];
  await openKit(
    page,
    read("kit.json") as Kit,
    takes.map(name => read(name) as Take),
    view,
    checks,
  );
}

/** Opens the page of a new kit. */
export async function openNewKit({ driver, address }: Page): Promise<void> {
  if (startsWithin(driver)) await goWithin(driver, "/new");
  else await driver.get(`${address}/new${NOT_KEPT}`);
}

/** Opens the small kit of the tests, with painted gates and two takes. */
export const openBelfry = (page: Page, view?: string) => openFolder(page, "e2e/belfry", view);

/** Opens a demo with its takes and checks, by the name of its folder: "belfry-runner". */
export const openDemo = (page: Page, demo: string, view?: string) => openFolder(page, `demo/${demo}`, view);

/** Waits until a reading of the page is truthy, and returns it. */
export async function waitFor<T>(
  driver: WebDriver,
  what: string,
  read: () => Promise<T | undefined | false>,
  patienceMs = PATIENCE_MS,
): Promise<T> {
  return (await driver.wait(
    async () => (await read().catch(() => undefined)) || false,
    patienceMs,
    `never came: ${what}`,
    LOOK_EVERY_MS,
  )) as T;
}

/** Chooses a rule from the list of Shape, by its name, and waits until it is open. */
export async function chooseRule(driver: WebDriver, name: string): Promise<void> {
  await clickOn(driver, `//nav[@aria-label="Rules"]//a[b="${name}"]`);
  await waitFor(driver, `sentence of ${name}`, async () => {
    const field = await find(driver, '[data-testid=sentence] input[aria-label="Name of this rule"]');
    return (await field.getAttribute("value")) === name;
  });
}

/** Opens a rule on Shape, by its name. */
export async function openRule(driver: WebDriver, name: string): Promise<void> {
  await press(driver, "Shape");
  await chooseRule(driver, name);
}

/** Types into a field, found by the beginning of its label. */
export async function typeOver(driver: WebDriver, label: string, value: string): Promise<void> {
  const field = await find(driver, `input[aria-label^="${label}"]`);
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), value, Key.ENTER);
}

/**
 * Waits until the page has fetched ahead the files with these words in their addresses, and everything that they import: each file
 * that a link of the page asks for.
 */
export const waitUntilFetched = (driver: WebDriver, ...files: readonly string[]): Promise<unknown> =>
  waitFor(driver, `fetched ahead: ${files.join(", ")}`, () =>
    driver.executeScript<boolean>(
      `const fetched = performance.getEntriesByType("resource").map(({ name }) => name);
       const links = [...document.querySelectorAll("link[rel=modulepreload], link[rel=prefetch]")];
       return arguments[0].every(file => fetched.some(name => name.includes(file))) &&
         links.every(({ href }) => fetched.includes(href));`,
      files,
    ),
  );

/** Opens an export form on Hand over, by its name. */
export async function openForm(driver: WebDriver, word: string): Promise<void> {
  const heading = `//section[@aria-label="${word}"]//h2/button`;
  if ((await (await find(driver, heading)).getAttribute("aria-expanded")) === "false")
    await clickOn(driver, heading);
}

/** Saves a file of an export form on Hand over. */
export async function saveFile(driver: WebDriver, form: string, file: string): Promise<void> {
  await openForm(driver, form);
  await press(driver, `Save file ${file}`);
}

/**
 * Returns the content of the one downloaded file of a name or pattern, once it is complete: the browser shows
 * an empty file under its name first, and fills it under another.
 */
export async function readSaved(
  { driver, downloads }: Pick<OpenBrowser, "downloads"> & { readonly driver: WebDriver },
  wanted: string | RegExp,
): Promise<Buffer> {
  let size = -1;
  return waitFor(driver, `the file ${wanted}`, async () => {
    const names = readdirSync(downloads);
    const matching = names.filter(name => (typeof wanted === "string" ? name === wanted : wanted.test(name)));
    if (matching.length !== 1 || names.some(name => name.endsWith(".crdownload"))) return false;
    const bytes = await readFile(join(downloads, matching[0]!));
    const isWhole = bytes.length > 0 && bytes.length === size;
    size = bytes.length;
    return isWhole && bytes;
  });
}

/** Returns the open kit as stored, once it satisfies a condition. */
export async function keptKit(
  driver: WebDriver,
  what: string,
  isIt: (kit: Kit) => boolean | undefined,
): Promise<Kit> {
  return waitFor(driver, what, async () => {
    const kit = await driver.executeAsyncScript<Kit>(
      `const done = arguments[0]; const id = decodeURIComponent(location.pathname.split("/")[2]);
       const open = indexedDB.open("moss-tap");
       open.onsuccess = () => { const get = open.result.transaction("kits").objectStore("kits").get(id);
         get.onsuccess = () => { open.result.close(); done(get.result.kit); }; };`,
    );
    return isIt(kit) && kit;
  });
}

/**
 * Observes a pattern's meter; the returned function waits until the meter is full and returns all values from
 * 0 to 1.
 */
export async function watchMeter(driver: WebDriver, pattern: string): Promise<() => Promise<number[]>> {
  await find(driver, `[data-testid=meter-${pattern}]`);
  await driver.executeScript(
    `const ring = document.querySelector("[data-testid=meter-${pattern}]");
    window.ratios = [];
    new MutationObserver(() => window.ratios.push(Number(ring.dataset.ratio))).observe(ring, { attributeFilter: ["data-ratio"] });`,
  );
  return () =>
    waitFor(driver, "the meter to fill", async () => {
      const seen = await driver.executeScript<number[]>("return window.ratios");
      return seen.at(-1) === 1 && seen;
    });
}

/** Returns the text of an element. */
export async function textOf(driver: WebDriver, where: string): Promise<string> {
  return readFirst(driver, where, "text");
}

/** Saves a screenshot of the page. */
export async function takePicture(driver: WebDriver, file: string): Promise<void> {
  writeFileSync(file, await driver.takeScreenshot(), "base64");
}

/** The state of a canvas: what it last painted. */
export interface CanvasState {
  /** The frame of a stage; the number of frames, the rows and the viewport of a tape. */
  readonly frame: number;
  readonly painted: number;
  readonly rows: readonly string[];
  readonly firstFrame: number;
  readonly pxPerFrame: number;
  readonly scrollPx: number;
}

/** A script that defines `describe(id)`, which returns the state of a canvas by its test id or its id. */
export const DESCRIBE = `const describe = id => {
  const detail = {};
  const canvas = document.querySelector('[data-testid="' + id + '"]') ?? document.getElementById(id);
  canvas?.dispatchEvent(new CustomEvent("moss-tap-describe", { detail }));
  return detail;
};`;

/** Returns the state of a canvas by its test id or its id; without fields if it is not there. */
export function describeCanvas(driver: WebDriver, id: "tape" | "stage"): Promise<CanvasState> {
  return driver.executeScript<CanvasState>(`${DESCRIBE} return describe(arguments[0]);`, id);
}
