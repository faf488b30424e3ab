import { mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { Key, type WebDriver } from "selenium-webdriver";
import {
  clickOn,
  describeCanvas,
  find,
  openBrowser,
  press,
  readSaved,
  startApp,
  takePicture,
  textOf,
  typeOver,
  waitFor,
  saveFile,
} from "./browser";

const FOLDER = "docs/screenshots";

/**
 * Takes the pictures of docs/screenshots from the demos, at 1280×800. Run by `npm run screenshots` after a
 * build.
 */
async function main(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const began = Date.now();
  const app = await startApp();
  const { driver, downloads, close } = await openBrowser();
  try {
    await driver.get(app.address);
    await takeBelfry(driver);
    await takeOthers(driver);
    await takeFiles(driver, downloads, app.address);
    // Pictures of views that are no more.
    for (const path of readdirSync(FOLDER).map(file => join(FOLDER, file)))
      if (statSync(path).mtimeMs < began) rmSync(path);
  } finally {
    await close();
    app.stop();
  }
}

async function picture(driver: WebDriver, name: string): Promise<void> {
  await driver.executeAsyncScript(
    "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() => requestAnimationFrame(() => done())))",
  );
  await takePicture(driver, `${FOLDER}/${name}.png`);
}

async function openView(driver: WebDriver, view: string): Promise<void> {
  await press(driver, view);
  await waitFor(
    driver,
    view,
    async () => (await textOf(driver, 'nav[aria-label="Views"] [aria-current=page]')) === view,
  );
  await find(driver, "[data-testid=open-take]");
}

async function openRule(driver: WebDriver, name: string, map: string): Promise<void> {
  const path = `//nav[@aria-label="Rules"]//a[b="${name}"]`;
  await clickOn(driver, path);
  await find(driver, `[data-testid=${map}]`);
}

async function waitForFrame(driver: WebDriver, frame: number): Promise<void> {
  const at = async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))?.[1]);
  await waitFor(driver, `frame ${frame}`, async () => (await at()) >= frame);
}

const steps = (count: number, key: string) => Array<string>(count).fill(key);

/** Belfry Runner: Shape with its maps, the tape by day and night, Hand over, the runner's stage, Wire. */
async function takeBelfry(driver: WebDriver): Promise<void> {
  await press(driver, "Open demo Belfry Runner");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Open A press eaten before the landing");
  await openView(driver, "Shape");
  await openRule(driver, "Hop", "window-map");
  await picture(driver, "shape");
  await openRule(driver, "Coil", "curve-editor");
  await press(driver, "Hide the tape");
  await picture(driver, "shape-charge");
  await press(driver, "Show the tape");
  await openView(driver, "Play");
  const grip = await find(driver, "[aria-label='Height of the tape']");
  await grip.sendKeys(...steps(11, Key.ARROW_UP));
  await takeTape(driver, "");
  await press(driver, "Night theme");
  await takeTape(driver, "-night");
  await press(driver, "Day theme");
  await grip.sendKeys(...steps(11, Key.ARROW_DOWN));
  await openView(driver, "Hand over");
  await picture(driver, "hand-over");
  await takeRunner(driver);
  await takeGoal(driver);
  await takeProof(driver);
  await takeWire(driver);
}

/** Wire with a key held. */
async function takeWire(driver: WebDriver): Promise<void> {
  await openView(driver, "Wire");
  await press(driver, "Start listening");
  await waitForFrame(driver, 20);
  await driver.actions().keyDown("d").perform();
  await waitForFrame(driver, 60);
  await picture(driver, "wire");
  await driver.actions().keyUp("d").sendKeys(Key.ESCAPE).perform();
}

/** The field of a goal: buffer and coyote time of Hop, for the presses of Leap. */
async function takeGoal(driver: WebDriver): Promise<void> {
  await openView(driver, "Tune");
  await clickOn(driver, '//nav[@aria-label="Studies"]//button[span[text()="Goal"]]');
  await typeOver(driver, "plays a take", "20");
  await press(driver, "Find them");
  await studied(driver, "goal");
  await picture(driver, "tune-goal");
}

/** Prove, with a jump too low for the kept events. */
async function takeProof(driver: WebDriver): Promise<void> {
  await openView(driver, "Play");
  const launch = await find(driver, 'input[aria-label="launch speed"]');
  await launch.sendKeys(Key.chord(Key.CONTROL, "a"), "12", Key.ENTER);
  await openView(driver, "Prove");
  await clickOn(driver, '[aria-label^="The clean climb stays as it is in Clean climb: the events"]');
  await press(driver, "What broke it?");
  await find(driver, "[data-testid=blame]");
  await picture(driver, "prove");
  await press(driver, "Undo");
}

/** The tape with the fate of a lost press, by day and by night. */
async function takeTape(driver: WebDriver, suffix: string): Promise<void> {
  const tape = await find(driver, "[data-testid=tape]");
  await clickOn(driver, "//button[contains(., ' lost')]");
  await clickOn(driver, '//*[@data-testid="lost-list"]//button[contains(., "Saved by")]');
  await find(driver, "[data-testid=fate] button.font-semibold");
  await tape.sendKeys("z", ...steps(5, "+"));
  await picture(driver, `tape${suffix}`);
  await press(driver, "Close the fate");
}

/** A leap on the runner's stage. */
async function takeRunner(driver: WebDriver): Promise<void> {
  await openView(driver, "Play");
  await press(driver, "Start listening");
  await waitForFrame(driver, 10);
  await driver.actions().keyDown("d").perform();
  await waitForFrame(driver, 40);
  await driver.actions().keyDown(Key.SPACE).perform();
  await waitForFrame(driver, 70);
  await driver.actions().keyUp(Key.SPACE).keyDown("j").perform();
  await waitForFrame(driver, 96);
  await picture(driver, "play-runner");
  await driver.actions().keyUp("j").keyUp("d").sendKeys(Key.ESCAPE).perform();
}

const studied = (driver: WebDriver, name: string) =>
  waitFor(driver, `the study ${name}`, async () => {
    const bar = await find(driver, `[data-testid=study-${name}]`);
    return (await bar.getAttribute("data-state")) === "done";
  });

/**
 * The studies of the duel: Feel, a sweep with the present and a tried value, two characters side by side,
 * overlaps.
 */
async function takeStudies(driver: WebDriver): Promise<void> {
  const open = (word: string) =>
    clickOn(driver, `//nav[@aria-label="Studies"]//button[span[text()="${word}"]]`);
  await openView(driver, "Tune");
  await studied(driver, "feel");
  await clickOn(driver, "[data-testid=feel-report] li:nth-child(2) summary");
  await picture(driver, "tune");
  await open("Sweep");
  await press(driver, "Sweep");
  await studied(driver, "sweep");
  const chart = await find(driver, "canvas[role=slider]");
  await driver.executeScript("arguments[0].focus()", chart);
  await driver
    .actions()
    .sendKeys(...steps(4, Key.ARROW_RIGHT))
    .perform();
  await find(driver, "//button[starts-with(., 'Keep 10f')]");
  await picture(driver, "tune-sweep");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await open("Hands");
  await press(driver, "… beside another hand, or another version");
  await press(driver, "Run the simulation");
  await studied(driver, "hands");
  await driver.executeScript(
    `document.querySelector("[data-testid=study-hands]").scrollIntoView({ block: "start" })`,
  );
  await picture(driver, "tune-hands");
}

/** The other two demos on their stages, a sequence's ladder, and the shelf with all three. */
async function takeOthers(driver: WebDriver): Promise<void> {
  await press(driver, "Moss Tap: to the shelf");
  await press(driver, "Open demo Clapper Duel");
  await find(driver, "[data-testid=stage]");
  await openView(driver, "Shape");
  await openRule(driver, "Quarter turn", "sequence-ladder");
  await press(driver, "Hide the tape");
  await openRule(driver, "Toll", "chain-map");
  await driver.executeScript(
    `document.querySelector("[data-testid=timeline-map]").scrollIntoView({ block: "start" })`,
  );
  await picture(driver, "shape-chain");
  await press(driver, "Show the tape");
  await openView(driver, "Play");
  await press(driver, "Start listening");
  await waitForFrame(driver, 20);
  await driver.actions().keyDown("k").perform();
  await waitForFrame(driver, 64);
  await picture(driver, "play-duel");
  await driver.actions().keyUp("k").sendKeys(Key.ESCAPE).perform();
  await takeStudies(driver);
  await press(driver, "Moss Tap: to the shelf");
  await press(driver, "Open demo Rope Catch");
  await find(driver, "[data-testid=stage]");
  await press(driver, "Start listening");
  await waitForFrame(driver, 76);
  await picture(driver, "play-ropes");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Moss Tap: to the shelf");
  await find(driver, "[data-testid=kit-belfry-runner]");
  await picture(driver, "shelf");
  await press(driver, "New kit");
  await press(driver, "A jump");
  await press(driver, "A charge");
  await picture(driver, "new-kit");
}

/** Two exported files: the timing sheet, and the playable page during a charge. */
async function takeFiles(driver: WebDriver, downloads: string, address: string): Promise<void> {
  await driver.get(address);
  await clickOn(driver, "[data-testid=kit-clapper-duel] a");
  await openView(driver, "Hand over");
  const save = async (form: string, name: string) => {
    await saveFile(driver, form, name);
    await readSaved({ driver, downloads }, name);
    return pathToFileURL(join(downloads, name)).href;
  };
  const sheet = await save("Timing sheet", "clapper-duel.sheet.html");
  const page = await save("Playable page", "clapper-duel.page.html");
  await driver.get(sheet);
  await picture(driver, "sheet");
  await driver.get(page);
  await clickOn(driver, "#turn");
  const playTo = (frame: number) =>
    waitFor(driver, `frame ${frame}`, async () => (await describeCanvas(driver, "stage")).frame >= frame);
  await playTo(20);
  await driver.actions().keyDown("k").perform();
  await playTo(64);
  await picture(driver, "playable-page");
  await driver.actions().keyUp("k").sendKeys(Key.ESCAPE).perform();
}

await main();
