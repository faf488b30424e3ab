import { readFileSync } from "node:fs";
import type { WebDriver } from "selenium-webdriver";
import { CHECKS, drawTake } from "../bench/playtest";
import { clickOn, find, press, textOf, waitFor } from "./browser";
import { median, readIn, printFigure, type FigureSize } from "./figuresKit";

/**
 * Measures a playtest under checks: an edit undone on Prove, until the first marks and until all are updated,
 * with the frame rate meanwhile.
 */
export async function measureProve(
  driver: WebDriver,
  address: string,
  folder: string,
  size: FigureSize,
): Promise<void> {
  await driver.get(address);
  await find(driver, 'ul[aria-label="Demos"]');
  const demo = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as object;
  const kit = { ...demo, id: "playtest", name: "Playtest" };
  const takes = Array.from({ length: size.takes }, (_, k) => [`take-${k}`, drawTake(k, kit.id)] as const);
  const checks = {
    format: "moss-tap/checks",
    version: 1,
    id: "asked",
    name: "Asked",
    kit: kit.id,
    checks: CHECKS,
  };
  await readIn(driver, folder, { kit, ...Object.fromEntries(takes), checks });
  await clickOn(driver, "[data-testid=kit-playtest] a");
  await press(driver, "Prove");
  const isAtRest = async () =>
    (await driver.executeScript<string | null>(
      "return document.querySelector('[data-testid=proof-sum]')?.dataset.working ?? null",
    )) === "false";
  await waitFor(driver, "all marks", isAtRest);
  const sum = await textOf(driver, "header [data-testid=proof-sum]");
  const found: { first: number; all: number; perSecond: number }[] = [];
  await press(driver, "Shape");
  await clickOn(driver, 'nav[aria-label="Rules"] a[href*="rule=move%3Ahop"]');
  const field = await find(driver, '[data-testid=sentence] input[aria-label^="buffer"]');
  await field.sendKeys("\uE013");
  await press(driver, "Prove");
  await waitFor(driver, "all marks", isAtRest);
  for (let k = 0; k < Math.ceil(size.steps / 12); k++) {
    found.push(
      await driver.executeAsyncScript<{ first: number; all: number; perSecond: number }>(
        `
    const tell = arguments[0];
    const key = { key: "z", code: "KeyZ", shiftKey: arguments[1] };
    const began = performance.now();
    let first = 0;
    let pictures = 0;
    let isBegun = false;
    document.body.dispatchEvent(new KeyboardEvent("keydown", { ...key, ctrlKey: true, bubbles: true, cancelable: true }));
    (function look() {
      pictures++;
      const now = performance.now() - began;
      const isWorking = document.querySelector("[data-testid=proof-sum]").dataset.working === "true";
      isBegun ||= isWorking;
      if (isBegun && !first && document.querySelector("[data-testid=proof-grid] [role=rowgroup] > [role=row]:not([data-old=true])")) first = now;
      if (isBegun && !isWorking) return tell({ first, all: now, perSecond: (pictures * 1000) / now });
      if (now > 20000) return tell({ first: NaN, all: NaN, perSecond: NaN });
      requestAnimationFrame(look);
    })();
  `.replace("arguments[1]", String(k % 2 === 1)),
      ),
    );
  }
  const middle = (of: (one: (typeof found)[number]) => number) => median(found.map(of));
  printFigure(
    `${size.takes} takes × ${CHECKS.length} checks (${sum}) after one edit: first marks`,
    `${middle(one => one.first).toFixed(0)} ms`,
    "goal 100 ms",
  );
  printFigure("  all marks", `${middle(one => one.all).toFixed(0)} ms`, "goal 1500 ms");
  printFigure("  the page meanwhile", `${middle(one => one.perSecond).toFixed(0)} frames/s`, "goal 55");
}
