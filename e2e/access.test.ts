import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import { choose, clickOn, find, openBelfry, openRule, press, textOf, waitFor } from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(() => {
  driver = session.driver;
});

test("no view has a serious fault for assistive technology, by day or night", async () => {
  const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
  const faults: string[] = [];
  const look = async (where: string) => {
    await driver.executeScript(axe);
    const found = await driver.executeAsyncScript<
      { id: string; impact: string; nodes: { html: string }[] }[]
    >(
      `const done = arguments[0]; axe.run(document, {resultTypes: ["violations"]}).then(result => done(result.violations))`,
    );
    const words = await driver.executeScript<string>("return document.body.innerText");
    const slip = /.*\b(NaN|Infinity|undefined)\b.*/.exec(words) ?? /.*(?:Infinity|NaN)f.*/.exec(words);
    if (slip) faults.push(`${where}: says "${slip[0]}"`);
    for (const fault of found) {
      if (["serious", "critical"].includes(fault.impact))
        faults.push(`${where}: ${fault.id} ${fault.nodes.map(node => node.html).join(" ")}`);
    }
  };
  await find(driver, 'ul[aria-label="Demos"]');
  await look("Shelf");
  await openBelfry(driver);
  await press(driver, "Shape");
  for (const starter of ["Charge and let go", "Motion and button"]) {
    await press(driver, "New rule");
    await choose(driver, "Control of the new rule", "Leap");
    await press(driver, starter);
    await find(driver, "[data-testid=sentence]");
  }
  for (const theme of ["Day", "Night"]) {
    for (const view of ["Wire", "Shape", "Play", "Tune", "Prove", "Hand over"]) {
      await press(driver, view);
      await waitFor(
        driver,
        view,
        async () => (await textOf(driver, 'nav[aria-label="Views"] [aria-current=page]')) === view,
      );
      await look(`${view}, ${theme}`);
      for (const place of view === "Wire" ? ["Sticks", "Keys", "Modes", "Figures"] : []) {
        await clickOn(driver, `nav[aria-label="Places in Wire"] a[href*="wire=${place.toLowerCase()}"]`);
        await find(driver, `section[aria-label="${place}"]`);
        await look(`Wire, ${place}, ${theme}`);
      }
      for (const rule of view === "Shape"
        ? ["Hop", "Right twice", "Tuck", "Leap charge", "Quarter turn"]
        : []) {
        await openRule(driver, rule);
        await look(`Shape of ${rule}, ${theme}`);
      }
    }
    if (theme === "Day") await press(driver, "Night theme");
  }
  for (const demo of ["Belfry Runner", "Clapper Duel", "Rope Catch"]) {
    await press(driver, "Moss Tap: to the shelf");
    await press(driver, `Open demo ${demo}`);
    await find(driver, "[data-testid=stage]");
    await look(`the stage of ${demo}`);
    if (demo !== "Belfry Runner") continue;
    await openRule(driver, "Ring");
    await look(`Shape of Ring, ${demo}`);
  }
  expect(faults).toEqual([]);
});
