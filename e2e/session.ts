import { readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { WebDriver } from "selenium-webdriver";
import { afterAll, afterEach, beforeAll, beforeEach, expect } from "vitest";
import { measurePage, openBrowser, startApp } from "./browser";

/** The environment of a browser test: the served application, and a tab of its own on its first page. */
export interface Session {
  driver: WebDriver;
  address: string;
  downloads: string;
}

/**
 * Serves the application and opens a browser for a file of tests. Each test has a new tab without stored data
 * of earlier ones, except the browser's cache of the application; a test fails if a page logged an error.
 */
export function useSession(): Session {
  const session = {} as Session;
  let app: Awaited<ReturnType<typeof startApp>>;
  let browser: Awaited<ReturnType<typeof openBrowser>>;
  beforeAll(async () => {
    app = await startApp();
    browser = await openBrowser();
  });
  afterAll(async () => {
    await browser.close();
    app.stop();
  });
  beforeEach(async () => {
    const { driver, downloads } = browser;
    const { address } = app;
    const forget = { origin: address, storageTypes: "all" };
    await driver.sendDevToolsCommand("Storage.clearDataForOrigin", forget);
    Object.assign(session, { driver, downloads, address });
    await driver.get(address);
  });
  afterEach(async () => {
    const { driver, downloads } = browser;
    const logs = await driver.manage().logs().get("browser");
    await driver.actions().clear();
    const used = await driver.getAllWindowHandles();
    await driver.switchTo().newWindow("tab");
    const fresh = await driver.getWindowHandle();
    for (const handle of used) {
      await driver.switchTo().window(handle);
      await driver.close();
    }
    await driver.switchTo().window(fresh);
    await measurePage(driver);
    for (const name of readdirSync(downloads)) rmSync(join(downloads, name), { recursive: true });
    expect(logs.filter(entry => entry.level.name === "SEVERE").map(entry => entry.message)).toEqual([]);
  });
  return session;
}
