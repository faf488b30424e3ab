import type { WebDriver } from "selenium-webdriver";
import { afterAll, afterEach, beforeAll, beforeEach, expect } from "vitest";
import { openBrowser, startApp } from "./browser";

/** What every browser test stands on: the application served, and a fresh browser on its first page. */
export interface Session {
  driver: WebDriver;
  address: string;
  downloads: string;
}

/** Serves the application for a file of tests and gives each test a fresh browser; a test fails if the page complained. */
export function useSession(): Session {
  const session = {} as Session;
  let app: Awaited<ReturnType<typeof startApp>>;
  let browser: Awaited<ReturnType<typeof openBrowser>>;
  beforeAll(async () => {
    app = await startApp();
  });
  afterAll(() => app.stop());
  beforeEach(async () => {
    browser = await openBrowser();
    Object.assign(session, { driver: browser.driver, downloads: browser.downloads, address: app.address });
    await browser.driver.get(app.address);
  });
  afterEach(async () => {
    const logs = await browser.driver.manage().logs().get("browser");
    await browser.close();
    expect(logs.filter(entry => entry.level.name === "SEVERE").map(entry => entry.message)).toEqual([]);
  });
  return session;
}
