import { mkdirSync } from "node:fs";
import { By, Key } from "selenium-webdriver";
import { find, openBrowser, press, startApp, takePicture, textOf, waitFor } from "./browser";

const FOLDER = "docs/screenshots";

/** Takes the pictures of docs/screenshots anew, from the demo, at 1280×800. Run by `npm run screenshots` after a build. */
async function main(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const app = await startApp();
  const { driver, close } = await openBrowser();
  const picture = async (name: string) => {
    await driver.executeAsyncScript(
      "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() => requestAnimationFrame(() => done())))",
    );
    await takePicture(driver, `${FOLDER}/${name}.png`);
  };
  const openView = async (view: string) => {
    await press(driver, view);
    await waitFor(
      driver,
      view,
      async () => (await textOf(driver, 'nav[aria-label="Views"] [aria-current=page]')) === view,
    );
    await find(driver, "[data-testid=open-take]");
  };
  try {
    await driver.get(app.address);
    await press(driver, "Open demo Belfry Runner");
    await find(driver, "[data-testid=open-take]");
    await press(driver, "Open Sloppy climb");
    await openView("Shape");
    await picture("shape");
    await press(driver, "Play");
    const lost = await waitFor(
      driver,
      "the lost presses",
      async () => (await driver.findElements(By.xpath("//button[contains(., ' lost')]")))[0],
    );
    await lost.click();
    const first = await waitFor(
      driver,
      "the nearest miss",
      async () =>
        (
          await driver.findElements(
            By.xpath('//*[@data-testid="lost-list"]//button[contains(., "Missed by")]'),
          )
        )[0],
    );
    await first.click();
    await find(driver, "[data-testid=fate] button.font-semibold");
    await picture("tape");
    const tape = await find(driver, "[data-testid=tape]");
    await tape.sendKeys("z");
    await picture("tape-far");
    await tape.sendKeys(...Array<string>(16).fill("+"));
    await picture("tape-near");
    await press(driver, "Close the fate");
    await openView("Shape");
    await press(driver, "Night theme");
    await picture("shape-night");
    await press(driver, "Day theme");
    await openView("Wire");
    await picture("wire");
    await openView("Hand over");
    await picture("hand-over");
    await openView("Play");
    await press(driver, "Wake the pad");
    await driver.actions().keyDown("k").perform();
    await waitFor(
      driver,
      "a half-filled ring",
      async () =>
        Number(await (await find(driver, "[data-testid=meter-cling]")).getAttribute("data-ratio")) > 0.4,
    );
    await picture("play");
    await driver.actions().keyUp("k").sendKeys(Key.ESCAPE).perform();
    await press(driver, "Moss Tap: to the shelf");
    await find(driver, "[data-testid=kit-belfry-runner]");
    await picture("shelf");
  } finally {
    await close();
    app.stop();
  }
}

await main();
