import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { Builder, By, until, type WebDriver, type WebElement } from "selenium-webdriver";
import { Options, ServiceBuilder, type Driver } from "selenium-webdriver/chrome.js";

const PATIENCE_MS = 15_000;

const FLAGS = [
  "--headless=new",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

async function freePort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });
}

/** Starts the built application on a free port; resolves with its address when it is ready. */
export async function startApp(): Promise<{ address: string; stop: () => void }> {
  const port = await freePort();
  const server: ChildProcess = spawn(process.execPath, ["bin/serve.mjs"], {
    env: { ...process.env, PORT: String(port) },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on("data", text => String(text).includes("ready at") && resolve());
    server.on("exit", code => reject(new Error(`the server stopped with ${code}`)));
  });
  return { address: `http://127.0.0.1:${port}`, stop: () => server.kill("SIGTERM") };
}

/** A fresh Chromium with a page of 1280×800 and a folder for downloads. */
export async function openBrowser(): Promise<{
  driver: WebDriver;
  downloads: string;
  close: () => Promise<void>;
}> {
  const home = mkdtempSync(join(tmpdir(), "moss-tap-"));
  const options = new Options();
  options.addArguments(...FLAGS, `--user-data-dir=${join(home, "profile")}`, "--window-size=1280,940");
  options.setBinaryPath("/usr/bin/chromium");
  options.setUserPreferences({
    "download.default_directory": home,
    "download.prompt_for_download": false,
    "profile.default_content_setting_values.automatic_downloads": 1,
  });
  const driver = (await new Builder()
    .forBrowser("chrome")
    .setChromeOptions(options as Options)
    .setChromeService(new ServiceBuilder("/usr/bin/chromedriver"))
    .build()) as Driver;
  await driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
    width: 1280,
    height: 800,
    deviceScaleFactor: 1,
    mobile: false,
  });
  const close = async () => {
    await driver.quit();
    rmSync(home, { recursive: true, force: true });
  };
  return { driver, downloads: home, close };
}

/** Waits until an element is there and shown. */
export async function find(driver: WebDriver, css: string): Promise<WebElement> {
  const element = await driver.wait(until.elementLocated(By.css(css)), PATIENCE_MS, `nothing matches ${css}`);
  await driver.wait(until.elementIsVisible(element), PATIENCE_MS, `${css} is not shown`);
  return element;
}

/** Waits for a button or link by its words or its label, and presses it. */
export async function press(driver: WebDriver, words: string): Promise<void> {
  const path = `//*[self::button or self::a][normalize-space(.)="${words}" or @aria-label="${words}"]`;
  const element = await driver.wait(
    until.elementLocated(By.xpath(path)),
    PATIENCE_MS,
    `no button "${words}"`,
  );
  await driver.wait(until.elementIsEnabled(element), PATIENCE_MS);
  await element.click();
}

/** Reads the small belfry of the tests in from its files and opens it: a kit with painted gates, and two takes. */
export async function openBelfry(driver: WebDriver): Promise<void> {
  await find(driver, 'ul[aria-label="Demos"]');
  const files = ["kit", "clean-climb", "sloppy-climb"].map(name => resolve(`e2e/belfry/${name}.json`));
  await (await driver.findElement(By.css("[data-testid=file-picker]"))).sendKeys(files.join("\n"));
  await find(driver, "[data-testid=kit-belfry-runner] a");
  await press(driver, "Close");
  await (await find(driver, "[data-testid=kit-belfry-runner] a")).click();
  await find(driver, "[data-testid=open-take]");
}

/** Waits until a reading of the page is what is wanted, and gives it. */
export async function waitFor<T>(
  driver: WebDriver,
  what: string,
  read: () => Promise<T | undefined | false>,
): Promise<T> {
  return (await driver.wait(
    async () => (await read().catch(() => undefined)) || false,
    PATIENCE_MS,
    `never came: ${what}`,
  )) as T;
}

/** The words of an element, however it came to be drawn. */
export async function textOf(driver: WebDriver, css: string): Promise<string> {
  return (await find(driver, css)).getText();
}

/** Saves a picture of the page. */
export async function takePicture(driver: WebDriver, file: string): Promise<void> {
  writeFileSync(file, await driver.takeScreenshot(), "base64");
}
