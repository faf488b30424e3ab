import { readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Driver } from "selenium-webdriver/chrome.js";
import { afterEach, beforeAll, beforeEach, expect, inject } from "vitest";
import { STORED_SWITCH } from "../app/shell/offline";
import { attachTo, measurePage, setItem, type Page } from "./browser";
import { clearPage, forgetScripts, goesOn } from "./tabPage";

/** The environment of a browser test: the served application, and a new tab that shows nothing yet. */
export interface Session extends Page {
  driver: Driver;
  address: string;
  downloads: string;
  /** See OpenBrowser. */
  devTools: string;
}

/** Heights of the tape's dock by view; px. */
type Docks = Readonly<Record<string, number>>;

/** Heights at which many rows are in sight, for tests that look at them. */
const TALL_DOCKS: Docks = { wire: 338, shape: 250, play: 338, tune: 338, prove: 338, "hand-over": 338 };

/**
 * Leaves the application. The tab shows a picture of it until the next test, because another origin would need a new
 * process for every test.
 */
async function leavePage({ driver, address }: Session): Promise<void> {
  await driver.executeScript("try { sessionStorage.clear() } catch {}");
  await forgetScripts(driver);
  await driver.get(`${address}/moss.svg`);
}

/**
 * Attaches a file of tests to the browser of its worker. Each test has a page without stored data of earlier ones,
 * except the browser's cache of the application; a test fails if a page logged an error. A test that passes and
 * leaves one page in order passes it on to the next one of its file, on an empty shelf. `docks`: heights of the tape's
 * dock, tall by default; null as delivered.
 */
export function useSession(docks: Docks | null = TALL_DOCKS): Session {
  const session = { address: inject("address") } as Session;
  const browser = inject("browsers")[Number(process.env.VITEST_POOL_ID) - 1]!;
  beforeAll(() => {
    const { downloads, devTools } = browser;
    Object.assign(session, { driver: attachTo(browser), downloads, devTools });
  });
  beforeEach(async () => {
    const { driver, address: origin } = session;
    if (!goesOn(driver)) {
      await driver.get(`${origin}/moss.svg`);
      const storageTypes = "local_storage,indexeddb,cookies,cache_storage,service_workers";
      await driver.sendDevToolsCommand("Storage.clearDataForOrigin", { origin, storageTypes });
      await setItem(session, STORED_SWITCH, "off");
    }
    if (docks) await setItem(session, "moss-tap-dock", JSON.stringify(docks));
  });
  afterEach(async ({ task }) => {
    const { driver, downloads } = session;
    const logs = await driver.manage().logs().get("browser");
    await driver.actions().clear();
    const [first, ...others] = await driver.getAllWindowHandles();
    for (const handle of others) {
      await driver.switchTo().window(handle);
      await driver.close();
    }
    await driver.switchTo().window(first!);
    await measurePage(driver);
    const faults = logs.filter(({ level }) => level.name === "SEVERE").map(({ message }) => message);
    const isInOrder = task.result?.state !== "fail" && faults.length === 0 && others.length === 0;
    if (!isInOrder || !(await clearPage(driver))) await leavePage(session);
    for (const name of readdirSync(downloads)) rmSync(join(downloads, name), { recursive: true });
    expect(faults).toEqual([]);
  });
  return session;
}
