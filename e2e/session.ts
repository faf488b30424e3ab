import { readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Driver } from "selenium-webdriver/chrome.js";
import { afterEach, beforeAll, beforeEach, expect, inject } from "vitest";
import { attachTo, forgetScripts, measurePage, tallDocks, type Page } from "./browser";

/** The environment of a browser test: the served application, and a new tab that shows nothing yet. */
export interface Session extends Page {
  driver: Driver;
  address: string;
  downloads: string;
  /** See OpenBrowser. */
  devTools: string;
}

/**
 * Attaches a file of tests to the browser of its worker. Each test has a page without stored data of earlier
 * ones, except the browser's cache of the application; a test fails if a page logged an error. Between tests the
 * tab shows a picture of the application, because another origin would need a new process for every test.
 */
export function useSession(): Session {
  const session = { address: inject("address") } as Session;
  const browser = inject("browsers")[Number(process.env.VITEST_POOL_ID) - 1]!;
  beforeAll(() => {
    const { downloads, devTools } = browser;
    Object.assign(session, { driver: attachTo(browser), downloads, devTools });
  });
  beforeEach(async () => {
    const forget = {
      origin: session.address,
      storageTypes: "local_storage,indexeddb,cookies,cache_storage,service_workers",
    };
    await session.driver.sendDevToolsCommand("Storage.clearDataForOrigin", forget);
    await tallDocks(session.driver, session.address);
  });
  afterEach(async () => {
    const { driver, downloads } = session;
    const logs = await driver.manage().logs().get("browser");
    await driver.actions().clear();
    const [first, ...others] = await driver.getAllWindowHandles();
    for (const handle of others) {
      await driver.switchTo().window(handle);
      await driver.close();
    }
    await driver.switchTo().window(first!);
    await driver.executeScript("try { sessionStorage.clear() } catch {}");
    await forgetScripts(driver);
    await driver.get(`${session.address}/moss.svg`);
    await measurePage(driver);
    for (const name of readdirSync(downloads)) rmSync(join(downloads, name), { recursive: true });
    expect(logs.filter(entry => entry.level.name === "SEVERE").map(entry => entry.message)).toEqual([]);
  });
  return session;
}
