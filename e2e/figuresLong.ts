import { readFileSync } from "node:fs";
import { Key, type WebDriver } from "selenium-webdriver";
import { createChance } from "../bench/scenes";
import { clickOn, describeCanvas, find, press, textOf, waitFor, openForm } from "./browser";
import { readIn, printFigure, WATCH, type FigureSize } from "./figuresKit";

const PRESSES_A_SECOND = 8;

/** Returns lanes of random presses on controls of Belfry Runner, drawn from a seed. */
function makeLanes(controls: readonly string[], frames: number) {
  const chance = createChance(10);
  const apart = (60 / PRESSES_A_SECOND) * controls.length;
  const lanes: Record<string, [number, number][]> = {};
  for (const id of controls) {
    const lane: [number, number][] = [];
    for (let x = 10; x < frames - 60; x += apart * (0.5 + chance())) lane.push([x, 1], [x + apart * 0.3, 0]);
    lanes[id] = lane;
  }
  return lanes;
}

/**
 * Measures the longest take: imported, opened, scrolled, a press selected, the list of losses, exported;
 * the longest task of each.
 */
export async function measureLong(
  driver: WebDriver,
  address: string,
  folder: string,
  { longFrames }: FigureSize,
): Promise<void> {
  const name = longFrames >= 2_160_000 ? "ten hours" : `${longFrames} frames`;
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  const kit = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as {
    controls: { id: string }[];
  };
  const lanes = makeLanes(
    kit.controls.slice(0, 3).map(({ id }) => id),
    longFrames,
  );
  await driver.executeScript(WATCH);
  const report = async (what: string) => {
    const long = await driver.executeScript<number[]>(
      "const { long } = window.watched; window.watched.long = []; return long",
    );
    printFigure(`${name}: ${what}, longest task`, `${Math.max(0, ...long).toFixed(0)} ms`, "goal 100 ms");
  };
  const take = {
    format: "moss-tap/take",
    version: 1,
    id: "ten",
    name: "Ten hours",
    kit: "ten",
    rate: 60,
    frames: longFrames,
    lanes,
  };
  await readIn(driver, folder, { "ten-kit": { ...kit, id: "ten", name: "Ten" }, "ten-take": take });
  await waitFor(driver, "the take on the shelf", async () =>
    (await textOf(driver, "[data-testid=kit-ten]")).includes("1 take"),
  );
  await report("read in");
  await clickOn(driver, "[data-testid=kit-ten] a");
  const tape = await find(driver, "[data-testid=tape]");
  const isPainted = async () => (await describeCanvas(driver, "tape")).painted === longFrames;
  const began = Date.now();
  await waitFor(driver, "the take on the tape", isPainted);
  await report(`opened, whole after ${((Date.now() - began) / 1000).toFixed(1)} s`);
  await driver.executeAsyncScript(`
    const done = arguments[0];
    const tape = document.querySelector("[data-testid=tape]");
    const box = tape.getBoundingClientRect();
    (function turn(k) {
      if (k === 60) return done();
      const at = { bubbles: true, cancelable: true, clientX: box.left + 700, clientY: box.top + 100 };
      tape.dispatchEvent(new WheelEvent("wheel", { ...at, ctrlKey: k > 30, shiftKey: k <= 30, deltaY: k > 30 ? 120 : 900 }));
      requestAnimationFrame(() => turn(k + 1));
    })(0);
  `);
  await report("scrolled and zoomed out");
  await driver.executeScript("arguments[0].focus()", tape);
  for (const key of [Key.END, Key.HOME, Key.ARROW_RIGHT, Key.ENTER])
    await driver.actions().sendKeys(key).perform();
  await report("walked to its ends, a press chosen");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await driver.executeScript(
    `[...document.querySelectorAll("footer button, section button")].find(item => / lost$/.test(item.textContent)).click()`,
  );
  await find(driver, "[data-testid=lost-list] li");
  await report("list of losses");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Hand over");
  await openForm(driver, "Documents");
  await press(driver, "Create them: the takes are long: Documents");
  await find(driver, 'ul[aria-label="Documents"]');
  await report("handed over");
}
