import { Key, type WebDriver } from "selenium-webdriver";
import { compile, formatIssue } from "#core";
import { listHeavyKits, type HeavyKit } from "../bench/heavyKits";
import { find, openBrowser, openKit, startApp } from "./browser";
import { runFirst } from "./tabPage";
import { percentile } from "./figuresKit";

/**
 * Opens the heaviest legal kits in headless Chromium, edits and plays them, and prints the longest tasks. Run
 * by `npm run ground:kits` after a build, with a part of a kit's name to measure that one alone.
 */

const VIEWS = ["wire", "shape", "play", "tune", "prove", "hand-over"];
const GOAL = { firstMs: 1000, editMs: 100, playMs: 200, pictures: 30 };

/** Records long tasks, animation frames and the first time that a view shows content. */
const WATCH = `
  window.watched = { frames: [], long: [], first: undefined };
  new PerformanceObserver(list => list.getEntries().forEach(entry => window.watched.long.push(entry.duration)))
    .observe({ type: "longtask", buffered: true });
  (function tick(now) {
    window.watched.frames.push(now);
    if (window.watched.first === undefined && document.querySelector("main > *")) window.watched.first = now;
    requestAnimationFrame(tick);
  })(performance.now());`;

const longest = async (driver: WebDriver) =>
  Math.max(0, ...(await driver.executeScript<number[]>("return window.watched.long.splice(0)")));
/** Waits until no task has been longer than 50 ms for a while. */
const settle = (driver: WebDriver) =>
  driver.executeAsyncScript(`const done = arguments[0];
    const channel = new MessageChannel(); let quiet = 0; let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now(); quiet = now - last < 150 ? quiet + 1 : 0; last = now;
      if (quiet >= 8) { clearInterval(timer); done(); }
    }, 50);`);

function row(what: string, ms: number, goal: number): void {
  console.log(`  ${ms <= goal ? " " : "!"} ${what.padEnd(38)} ${ms.toFixed(0).padStart(7)} ms`);
}

async function measure(driver: WebDriver, address: string, { name, kit, takes }: HeavyKit): Promise<void> {
  console.log(`${name} (${(JSON.stringify(kit).length / 1024).toFixed(0)} KB, ${takes.length} takes)`);
  await openKit({ driver, address }, kit, takes, "play");
  await settle(driver);
  for (const view of VIEWS) {
    await driver.get(`${address}/kit/${kit.id}/${view}`);
    await find(driver, "main > *");
    await settle(driver);
    const first = await driver.executeScript<number>("return window.watched.first");
    row(`${view}: first content`, first, GOAL.firstMs);
    row(`${view}: longest task`, await longest(driver), GOAL.playMs);
  }
  await driver.get(`${address}/kit/${kit.id}/shape`);
  await settle(driver);
  await longest(driver);
  const fields = await driver.findElements({ css: "[data-testid=sentence] input[aria-label]" });
  const numbers = [];
  for (const field of fields)
    if (/^\d+f$/.test((await field.getAttribute("value")) ?? "")) numbers.push(field);
  if (numbers[0]) {
    for (let k = 0; k < 3; k++) {
      await numbers[0].sendKeys(Key.ARROW_UP);
      await settle(driver);
    }
    row("shape, a number stepped: longest task", await longest(driver), GOAL.editMs);
  }
  await driver.get(`${address}/kit/${kit.id}/play`);
  const wake = await find(driver, '//button[contains(., "Start listening")]');
  await settle(driver);
  await wake.click();
  await driver.executeScript("window.watched.frames.length = 0; window.watched.long.length = 0;");
  for (let k = 0; k < 10; k++) await driver.actions().keyDown("a").pause(60).keyUp("a").pause(60).perform();
  const times = await driver.executeScript<number[]>("return window.watched.frames");
  row("play: longest task", await longest(driver), GOAL.playMs);
  const gaps = times.slice(1).map((at, k) => at - times[k]!);
  row("play: time between pictures, 90 % under", percentile(gaps, 0.9), 1000 / GOAL.pictures);
}

const wanted = process.argv[2] ?? "";
const app = await startApp();
for (const heavy of listHeavyKits().filter(({ name }) => name.includes(wanted))) {
  const compiled = compile(heavy.kit);
  if (!compiled.ok)
    throw new Error(`${heavy.name}: ${compiled.issues.slice(0, 3).map(formatIssue).join("; ")}`);
  const browser = await openBrowser();
  try {
    await browser.driver.manage().setTimeouts({ script: 120_000, pageLoad: 120_000 });
    await runFirst(browser.driver, WATCH);
    await measure(browser.driver, app.address, heavy);
  } catch (error) {
    console.log(`  ! ${String(error).slice(0, 200)}`);
  } finally {
    await browser.close();
  }
}
app.stop();
