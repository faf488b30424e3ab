import type { WebDriver } from "selenium-webdriver";
import { choose, clickOn, find, press, typeOver, waitFor } from "./browser";
import { printFigure, type FigureSize } from "./figuresKit";

interface Measured {
  readonly first: number;
  readonly perSecond: number;
  readonly cancelled: number;
}

/**
 * Measures a sweep with hands over a demo's takes: until the first result, the frame rate meanwhile, and
 * until it is cancelled.
 */
export async function measureTune(
  driver: WebDriver,
  address: string,
  { watchMs }: FigureSize,
): Promise<void> {
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  await press(driver, "Open demo Belfry Runner");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Tune");
  await clickOn(driver, '//nav[@aria-label="Studies"]//button[span[text()="Sweep"]]');
  const state = async () => (await find(driver, "[data-testid=study-sweep]")).getAttribute("data-state");
  await press(driver, "Sweep");
  await waitFor(driver, "a sweep", async () => (await state()) === "done");
  await choose(driver, "hands", "by steady hands");
  await typeOver(driver, "plays a take", "2000");
  const found = await driver.executeAsyncScript<Measured>(`
    const tell = arguments[0];
    const bar = () => document.querySelector("[data-testid=study-sweep]");
    const button = words => [...bar().querySelectorAll("button")].find(item => item.textContent.trim() === words);
    const began = performance.now();
    let first = 0;
    let pictures = 0;
    button("Sweep again").click();
    (function look() {
      pictures++;
      const now = performance.now() - began;
      if (!first && Number(bar().querySelector("progress")?.value ?? 0) > 0) first = now;
      if (now < ${watchMs}) return requestAnimationFrame(look);
      const perSecond = (pictures * 1000) / now;
      const called = performance.now();
      button("Cancel").click();
      (function ended() {
        if (bar().dataset.state === "stopped") return tell({ first, perSecond, cancelled: performance.now() - called });
        requestAnimationFrame(ended);
      })();
    })();
  `);
  printFigure(
    "a sweep with 2,000 hands: first sign of progress",
    `${found.first.toFixed(0)} ms`,
    "goal 200 ms",
  );
  printFigure(
    "  the page meanwhile, two workers at work",
    `${found.perSecond.toFixed(0)} frames/s`,
    "goal 55",
  );
  printFigure("  called off", `${found.cancelled.toFixed(0)} ms`, "goal 100 ms");
}
