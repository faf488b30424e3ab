import { readFileSync } from "node:fs";
import { Key, type WebDriver } from "selenium-webdriver";
import { parseKit, parseTake } from "#core";
import { lengthenTake, makeLargeKit, makeTake } from "../bench/scenes";
import { measureLong } from "./figuresLong";
import { measureProve } from "./figuresProve";
import { measureTune } from "./figuresTune";
import { median, percentile, readIn, printFigure, WATCH, type FigureSize } from "./figuresKit";
import { clickOn, DESCRIBE, describeCanvas, find, press, waitFor } from "./browser";

/** Measures panning and zooming over a long take. */
async function measurePanning(driver: WebDriver, folder: string, size: FigureSize): Promise<void> {
  const kit = {
    ...makeLargeKit(1),
    patterns: makeLargeKit(1).patterns.slice(0, 20),
    moves: makeLargeKit(1).moves!.slice(0, 8),
  };
  await readIn(driver, folder, { "hour-kit": kit, "hour-take": { ...makeTake(size.frames), kit: kit.id } });
  await clickOn(driver, "[data-testid=kit-large] a");

  await waitFor(
    driver,
    "the hour on the tape",
    async () => (await describeCanvas(driver, "tape")).painted === size.frames,
  );
  await driver.executeScript(WATCH);
  await driver.executeScript(`
    const tape = document.querySelector("[data-testid=tape]");
    const box = tape.getBoundingClientRect();
    const began = performance.now();
    (function wheel(now) {
      const t = now - began;
      if (t > ${size.watchMs}) { window.watched.done = true; return; }
      const zoom = t > ${size.watchMs / 2};
      tape.dispatchEvent(new WheelEvent("wheel", { bubbles: true, cancelable: true, clientX: box.left + 700, clientY: box.top + 100,
        ctrlKey: zoom, shiftKey: !zoom, deltaY: zoom ? Math.sin(t / 300) * 60 : Math.sin(t / 900) * 400 }));
      requestAnimationFrame(wheel);
    })(began);
  `);
  await waitFor(driver, "the panning", () =>
    driver.executeScript<boolean>("return window.watched.done === true"),
  );
  const { frames, long } = await driver.executeScript<{ frames: number[]; long: number[] }>(
    "return window.watched",
  );
  const perSecond = Array.from(
    { length: Math.ceil(size.watchMs / 1000) },
    (_, s) => frames.filter(at => at >= frames[0]! + s * 1000 && at < frames[0]! + (s + 1) * 1000).length,
  );
  printFigure(
    `${size.frames.toLocaleString("en")} frames, 36 rows: pan and zoom`,
    `${median(perSecond)} frames/s`,
    "goal 55 in the median second",
  );
  printFigure("  long tasks over 50 ms after load", String(long.length), "goal none");
}

/** Measures the same long take: numbers stepped while a worker evaluates; the page must stay responsive. */
async function measureHour(driver: WebDriver, size: FigureSize): Promise<void> {
  await press(driver, "Shape");
  const field = await find(driver, '[data-testid=sentence] input[aria-label^="buffer"]');
  await driver.executeScript("window.watched.long = []; window.watched.frames = [];");
  for (let k = 0; k < 10; k++) await field.sendKeys(Key.ARROW_UP);
  const value = await field.getAttribute("value");
  await waitFor(driver, "the newest answer", () =>
    driver.executeScript<boolean>("return document.querySelector('[data-testid=working-out]') === null"),
  );
  const { long } = await driver.executeScript<{ long: number[] }>("return window.watched");
  printFigure(
    `${size.frames.toLocaleString("en")} frames, a number stepped ten times (to ${value}): longest task`,
    `${Math.max(0, ...long).toFixed(0)} ms`,
    "the view stays responsive",
  );
}

/**
 * Measures three takes of a minute, a number stepped on Shape: until sentence, map, counts and tape are
 * updated.
 */
async function measureShape(
  driver: WebDriver,
  address: string,
  folder: string,
  { steps }: FigureSize,
): Promise<void> {
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  const kit = parseKit(JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")));
  const take = parseTake(JSON.parse(readFileSync("e2e/belfry/sloppy-climb.json", "utf8")));
  if (!kit.ok || !take.ok) throw new Error("the demo must read");
  const named = { ...kit.value, id: "three-minutes", name: "Three minutes" };
  const takes = [1, 2, 3].map(n => [
    `take-${n}`,
    { ...lengthenTake(take.value, 3600), id: `minute-${n}`, name: `Minute ${n}`, kit: named.id },
  ]);
  await readIn(driver, folder, { "three-kit": named, ...Object.fromEntries(takes) });
  await clickOn(driver, "[data-testid=kit-three-minutes] a");
  await press(driver, "Shape");
  await clickOn(driver, 'nav[aria-label="Rules"] a[href*="rule=move%3Ahop"]');
  await find(driver, "[data-testid=window-map]");
  const took = await driver.executeAsyncScript<{
    work: number[];
    whole: number[];
    idle: number[];
    stale: number;
  }>(`
    const tell = arguments[0];
    const field = document.querySelector('[data-testid=sentence] input[aria-label^="buffer"]');
    const edge = document.querySelector('[aria-label="Hop: buffer on the map"]');
    const took = { work: [], whole: [], idle: [], stale: 0 };
    const frame = () => new Promise(requestAnimationFrame);
    field.focus();
    (async function () {
      for (let k = 0; k < ${steps}; k++) {
        await frame();
        const idleBegan = performance.now();
        await Promise.resolve();
        await frame();
        took.idle.push(performance.now() - idleBegan);
        await new Promise(next => setTimeout(next, 40));
        await frame();
        const before = field.value;
        const began = performance.now();
        field.dispatchEvent(new KeyboardEvent("keydown", { key: k % 2 ? "ArrowDown" : "ArrowUp", bubbles: true, cancelable: true }));
        await Promise.resolve();
        took.work.push(performance.now() - began);
        await frame();
        if (field.value === before || edge.getAttribute("aria-valuetext") !== field.value) took.stale++;
        took.whole.push(performance.now() - began);
        await new Promise(next => setTimeout(next, 40));
      }
      tell(took);
    })();
  `);
  if (took.stale > 0) throw new Error(`${took.stale} steps were not on the map by the next frame`);
  const idle = median(took.idle);
  const whole = `${median(took.whole).toFixed(1)} / ${percentile(took.whole, 0.95).toFixed(1)} ms`;
  printFigure(
    "three minutes of takes, a number stepped on Shape: all new after",
    whole,
    `median / 95th; ${(median(took.whole) / idle).toFixed(2)}× the idle loop's ${idle.toFixed(1)} ms, goal at most 1.1×`,
  );
  printFigure(
    "  of that, rules run and the page brought up to date",
    `${median(took.work).toFixed(1)} ms`,
    "",
  );
}

/** Measures a buffer pulled on the tape. */
async function measurePull(
  driver: WebDriver,
  address: string,
  folder: string,
  { steps }: FigureSize,
): Promise<void> {
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  const kit = parseKit(JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")));
  const take = parseTake(JSON.parse(readFileSync("e2e/belfry/clean-climb.json", "utf8")));
  if (!kit.ok || !take.ok) throw new Error("the demo must read");
  const named = { ...kit.value, id: "one-minute", name: "One minute" };
  const minute = { ...lengthenTake(take.value, 3600), kit: named.id };
  await readIn(driver, folder, { "minute-kit": named, "minute-take": minute });
  await clickOn(driver, "[data-testid=kit-one-minute] a");

  await waitFor(
    driver,
    "the minute on the tape",
    async () => (await describeCanvas(driver, "tape")).painted === 3600,
  );
  const took = await driver.executeAsyncScript<{ work: number[]; whole: number[] }>(`
    const done = arguments[0];
    const tape = document.querySelector("[data-testid=tape]");
    const box = tape.getBoundingClientRect();
    const at = (type, x) => tape.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: x, clientY: box.top + 36 + 9 * 24 + 12, buttons: 1 }));
    tape.setPointerCapture = () => {};
    const grip = box.left + 196 + (36 + 7) * 8;
    at("pointermove", grip);
    at("pointerdown", grip);
    const took = { work: [], whole: [] };
    let k = 0;
    (async function pull() {
      if (k++ === ${2 * steps}) { at("pointerup", grip); return done(took); }
      const began = performance.now();
      let frameBegan = 0;
      requestAnimationFrame(() => { frameBegan = performance.now(); });
      at("pointermove", grip + (k % 30) * 8);
      await Promise.resolve();
      await Promise.resolve();
      const judged = performance.now() - began;
      requestAnimationFrame(() => {
        const channel = new MessageChannel();
        channel.port1.onmessage = () => {
          const now = performance.now();
          took.work.push(judged + now - frameBegan);
          took.whole.push(now - began);
          setTimeout(pull, 5 + (k * 7) % 16);
        };
        channel.port2.postMessage(0);
      });
    })();
  `);
  const pair = (values: number[]) =>
    `${median(values).toFixed(1)} / ${percentile(values, 0.95).toFixed(1)} ms`;
  printFigure(
    "pull a buffer, one minute of Belfry Runner: hand to picture",
    pair(took.work),
    "median / 95th, goal 16 / 33",
  );
  printFigure("  with the wait for the screen's next frame", pair(took.whole), "");
}

/** Measures how soon an event is on the tape while recording. */
async function measureRecording(driver: WebDriver): Promise<void> {
  await press(driver, "Record a take");
  await waitFor(driver, "the first frames", () =>
    driver.executeScript<boolean>(`${DESCRIBE} const n = describe("tape").painted; return n > 5 && n < 1000`),
  );
  const late = await driver.executeAsyncScript<number[]>(`
    ${DESCRIBE}
    const done = arguments[0];
    const late = [];
    (function tap(k) {
      if (k === 20) return done(late);
      const target = describe("tape").painted + 1;
      let screens = 0;
      window.dispatchEvent(new KeyboardEvent(k % 2 === 0 ? "keydown" : "keyup", { code: "KeyK", bubbles: true, cancelable: true }));
      requestAnimationFrame(function look() {
        screens++;
        if (describe("tape").painted >= target) { late.push(screens); return setTimeout(() => tap(k + 1), 40); }
        requestAnimationFrame(look);
      });
    })(0);
  `);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  printFigure(
    "recording: an event is on the tape after",
    `${Math.max(...late)} screen frames`,
    "goal at most 2",
  );
}

/**
 * Measures from the shelf into a demo to the first recognised press, and the frame intervals with the tape
 * open.
 */
async function measurePlay(driver: WebDriver, address: string, { watchMs }: FigureSize): Promise<void> {
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  const openMs = await driver.executeAsyncScript<number>(`
    ${DESCRIBE}
    const tell = arguments[0];
    const began = performance.now();
    const byLabel = words => [...document.querySelectorAll("button")].find(item => (item.getAttribute("aria-label") || item.textContent) === words);
    byLabel("Open demo Belfry Runner").click();
    (function look() {
      const wake = byLabel("Start listening") || [...document.querySelectorAll("button")].find(item => item.textContent.includes("Start listening"));
      if (describe("stage").frame === undefined || !wake) return requestAnimationFrame(look);
      wake.click();
      window.dispatchEvent(new KeyboardEvent("keydown", { code: "KeyD", bubbles: true, cancelable: true }));
      (function heard() {
        if (document.querySelector('[aria-label="Controls"] button[aria-pressed=true]')) return tell(performance.now() - began);
        requestAnimationFrame(heard);
      })();
    })();
  `);
  printFigure("a demo from the shelf to the first press received", `${openMs.toFixed(0)} ms`, "goal 1500 ms");
  const { steps, screens } = await driver.executeAsyncScript<{ steps: number; screens: number }>(`
    const tell = arguments[0];
    ${DESCRIBE}
    const at = () => describe("stage").frame;
    const from = at();
    const began = performance.now();
    let screens = 0;
    (function look() {
      screens++;
      const passed = performance.now() - began;
      if (passed < ${watchMs}) return requestAnimationFrame(look);
      tell({ steps: ((at() - from) * 1000) / passed, screens: (screens * 1000) / passed });
    })();
  `);
  printFigure(
    "the stage at 1280×800 with the tape open",
    `${steps.toFixed(1)} steps/s`,
    `goal 60; ${screens.toFixed(0)} pictures a second`,
  );
}

/** Measures every figure in a browser and prints each as a line. `folder`: its downloads. */
export async function measureFigures(
  driver: WebDriver,
  address: string,
  folder: string,
  size: FigureSize,
): Promise<void> {
  await measureProve(driver, address, folder, size);
  await measureTune(driver, address, size);
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  await measurePanning(driver, folder, size);
  await measureHour(driver, size);
  await measurePlay(driver, address, size);
  await measureShape(driver, address, folder, size);
  await measurePull(driver, address, folder, size);
  await measureRecording(driver);
  await measureLong(driver, address, folder, size);
}
