import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import { clickOn, find, keptKit, openBelfry, press, textOf, typeOver, waitFor } from "./browser";
import { runFirst } from "./tabPage";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

async function openWire(): Promise<void> {
  await openBelfry(session, "wire");
  await find(driver, "[data-testid=held-leap]");
}

/** Opens Wire with a gamepad that `setPad` moves. */
async function openWireWithPad(): Promise<void> {
  await runFirst(
    driver,
    `window.handPad = { index: 0, id: "Hand pad (Vendor: 1)", mapping: "standard", connected: true,
      buttons: Array.from({ length: 17 }, () => ({ value: 0 })), axes: [0, 0, 0, 0] };
    navigator.getGamepads = () => [null, window.handPad];`,
  );
  await openWire();
}

beforeEach(() => {
  driver = session.driver;
});

const held = (id: string) => textOf(driver, `[data-testid=held-${id}]`);
const isDown = (id: string) => waitFor(driver, `${id} down`, async () => (await held(id)) !== "up");
const isUp = (id: string) => waitFor(driver, `${id} up`, async () => (await held(id)) === "up");
const sees = (words: string) =>
  waitFor(driver, words, async () => (await textOf(driver, "[data-testid=hear]")).includes(words));
const logs = (words: string) =>
  waitFor(driver, words, async () => (await textOf(driver, '[aria-label="Raw events"]')).includes(words));

async function setPad(script: string): Promise<void> {
  await driver.executeScript(`const pad = window.handPad; ${script}`);
}

async function openPlace(word: string): Promise<void> {
  const path = `//nav[@aria-label="Places in Wire"]//a[b="${word}"]`;
  await clickOn(driver, path);
}

test("a pad plays: buttons, triggers and sticks, polled; unplugged during a hold it leaves nothing held", async () => {
  await openWireWithPad();
  await press(driver, "Start listening");
  await waitFor(driver, "the pad named", async () =>
    (await textOf(driver, "[data-testid=pads]")).includes("Hand pad"),
  );
  await setPad("pad.buttons[0] = { value: 1 }; pad.axes[0] = 0.45;");
  await isDown("leap");
  await expect.poll(() => held("right")).toBe("up");
  await setPad("pad.axes[0] = 0.9;");
  await isDown("right");
  await expect
    .poll(async () => Number(await textOf(driver, "[data-testid=value-right]")))
    .toBeCloseTo(0.9, 1);
  await setPad("pad.connected = false; window.dispatchEvent(new Event('gamepaddisconnected'));");
  await isUp("leap");
  await isUp("right");
  await logs("the pad is gone");
});

test("a pad without the standard mapping is reported, and its button is bound by pressing", async () => {
  await openWireWithPad();
  await setPad("pad.mapping = ''; pad.buttons.push({ value: 0 }, { value: 0 });");
  await press(driver, "Bind by pressing: Brace");
  await setPad("pad.buttons[18] = { value: 1 };");
  await driver.executeAsyncScript("requestAnimationFrame(() => requestAnimationFrame(arguments[0]))");
  await setPad("pad.buttons[18] = { value: 0 };");
  await find(driver, '[aria-label="Take pad 18 off Brace"]');
  await press(driver, "Start listening");
  await waitFor(driver, "the word", async () =>
    (await textOf(driver, "[data-testid=pads]")).includes("no standard mapping"),
  );
  await setPad("pad.buttons[18] = { value: 1 };");
  await isDown("brace");
});

test("a pad without the standard mapping is mapped by pressing each part once, and is standard after a reload too", async () => {
  await openWireWithPad();
  await setPad(
    `pad.mapping = ""; pad.axes = [0, 0, -1, 0]; window.dispatchEvent(new Event("gamepadconnected"));`,
  );
  await driver.navigate().refresh();
  await find(driver, "[data-testid=held-leap]");
  await setPad(`pad.mapping = ""; pad.axes = [0, 0, -1, 0];`);
  await press(driver, "Start listening");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Map it …");
  await find(driver, "[aria-label='Axes of the pad']");
  const step = (words: string) =>
    waitFor(driver, words, async () => (await textOf(driver, "[data-testid=pad-step]")).includes(words));
  const pictures = (count: number) =>
    driver.executeAsyncScript(
      `const [count, done] = arguments; let n = 0; const next = () => (++n > count ? done() : requestAnimationFrame(next)); next();`,
      count,
    );
  await step("the lowest of the four");
  await pictures(12);
  await setPad("pad.buttons[5] = { value: 1 };");
  await pictures(3);
  await setPad("pad.buttons[5] = { value: 0 };");
  await step("the rightmost");
  // The same button is refused; Escape and a second opening keep what was answered.
  await setPad("pad.buttons[5] = { value: 1 };");
  await pictures(3);
  await setPad("pad.buttons[5] = { value: 0 };");
  await find(driver, "//*[@role='status'][contains(., 'button 5, which has been pressed before')]");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Map it …");
  await step("the rightmost");
  for (let n = 1; n < 10; n++) await press(driver, "This pad has none");
  await step("left trigger");
  await pictures(12);
  await setPad("pad.axes[2] = 1;");
  await pictures(3);
  await setPad("pad.axes[2] = -1;");
  await step("right trigger");
  await press(driver, "Keep this map (2 of 21 parts)");
  const maps = async () => textOf(driver, "[data-testid=pads]");
  await waitFor(driver, "the map", async () => (await maps()).includes("2 buttons and 0 axes"));
  await press(driver, "Start listening");
  await setPad("pad.buttons[5] = { value: 1 };");
  await isDown("leap");
  await press(driver, "Delete the map of Hand pad");
  await isUp("leap");
  await press(driver, "Put it back");
  await isDown("leap");
});

test("buttons held together are one binding, a conflict is reported, Backspace clears, undo restores", async () => {
  await openWire();
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().keyDown(Key.SHIFT).keyDown("h").keyUp("h").keyUp(Key.SHIFT).perform();
  await find(driver, '[aria-label="Take left Shift + H off Brace"]');
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().sendKeys(Key.SPACE).perform();
  await waitFor(driver, "the clash", async () =>
    (await textOf(driver, 'section[aria-label="Controls"]')).includes("Space plays Leap too"),
  );
  await press(driver, "Start listening");
  await driver.actions().keyDown("h").perform();
  await logs("H");
  await expect.poll(() => held("brace")).toBe("up");
  await driver.actions().keyDown(Key.SHIFT).perform();
  await isDown("brace");
  await driver.actions().keyUp(Key.SHIFT).keyUp("h").sendKeys(Key.ESCAPE).perform();
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().sendKeys(Key.BACK_SPACE).perform();
  const bound = () => driver.findElements(By.css('[aria-label$=" off Brace"]'));
  await waitFor(driver, "no binding", async () => (await bound()).length === 0);
  await press(driver, "Undo");
  await waitFor(driver, "the bindings back", async () => (await bound()).length === 4);
});

test("the left button is bound by clicking without opening anything; a bench key is refused with a sentence", async () => {
  await openWire();
  await press(driver, "Bind by pressing: Brace");
  const waiting = "//button[contains(., 'Esc leaves')]";
  await clickOn(driver, waiting);
  await find(driver, '[aria-label="Take left click off Brace"]');
  await find(driver, '[aria-label="Bind by pressing: Brace"]');
  await expect.poll(() => driver.findElements(By.xpath(waiting))).toEqual([]);
  await press(driver, "Bind by pressing: Brace");
  await driver.actions().sendKeys(Key.F2).perform();
  await waitFor(driver, "the word", async () =>
    (await textOf(driver, 'section[aria-label="Controls"]')).includes("this key works the stage"),
  );
  await expect.poll(() => driver.findElements(By.css('[aria-label="Take F2 off Brace"]'))).toEqual([]);
});

test("a control is pulled to an analog value, and the press threshold is dragged to it", async () => {
  await openWire();
  const grip = await find(driver, "[data-testid=pull-brace]");
  await driver.actions().move({ origin: grip }).press().move({ origin: grip, y: 20 }).perform();
  const value = () => textOf(driver, "[data-testid=value-brace]");
  await waitFor(
    driver,
    "a value between",
    async () => Number(await value()) > 0.2 && Number(await value()) < 0.5,
  );
  await expect.poll(() => held("brace")).toBe("up");
  await driver.actions().release().perform();
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  const line = await find(driver, '[aria-label="Press point of Brace"]');
  await driver
    .actions()
    .move({ origin: line })
    .press()
    .move({ origin: line, y: 4 })
    .move({ origin: line, y: 9 })
    .release()
    .perform();
  await waitFor(
    driver,
    "a lower press point",
    async () => Number(await line.getAttribute("aria-valuenow")) < 0.3,
  );
  await line.sendKeys(Key.ARROW_UP);
  await driver.actions().move({ origin: grip }).press().move({ origin: grip, y: 20 }).perform();
  await isDown("brace");
  await driver.actions().release().perform();
  await isUp("brace");
});

test("the explanation of a key names the rules that see it, and the one that hides it", async () => {
  await openWire();
  await press(driver, "Start listening");
  await driver.actions().sendKeys("p").perform();
  await sees("P plays nothing here");
  await driver.actions().sendKeys("k").perform();
  await sees("Used by Cling and Tuck.");
  // However many events are listed below it, the explanation is whole.
  const hands = driver.actions();
  for (let n = 0; n < 20; n++) hands.keyDown("k").keyUp("k");
  await hands.perform();
  await waitFor(driver, "a full list", async () => {
    const events = await driver.findElements({ css: '[aria-label="Raw events"] li' });
    return events.length === 40;
  });
  expect(
    await driver.executeScript(
      "const card = document.querySelector('[data-testid=hear]'); return card.scrollHeight - card.clientHeight;",
    ),
  ).toBe(0);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await openPlace("Keys");
  await clickOn(driver, '[aria-label="Space Leap"]');
  await sees("Space plays Leap");
  await sees("Leap press");
});

test("after a control is deleted, the other keys still play their own rules", async () => {
  await openWire();
  await press(driver, "Delete control Leap");
  await openPlace("Keys");
  await clickOn(driver, '[aria-label="K Brace"]');
  await sees("The kit has faults");
  await sees("Used by Cling and Tuck.");
});

test("a control that is renamed after it was added is offered an id of its name", async () => {
  await openWire();
  await press(driver, "Add a control");
  await typeOver(driver, "Name of Control 5", "Grab the rope");
  await press(driver, "use grab-the-rope");
  await keptKit(driver, "the id", kit => kit.controls.some(({ id }) => id === "grab-the-rope"));
  await expect.poll(() => driver.findElements(By.xpath('//button[starts-with(., "make it")]'))).toEqual([]);
});

test("modes swap live for a try, a held button does not leak, and the grid is edited", async () => {
  await openWire();
  await openPlace("Modes");
  await press(driver, "Add a mode");
  await press(driver, "Add a mode");
  await press(driver, "Brace in Air: Cling, Tuck");
  await clickOn(driver, "//label[contains(., 'Cling')]/input");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await find(driver, '[aria-label="Brace in Air: Tuck"]');
  await press(driver, "Start listening");
  await driver.actions().keyDown("k").perform();
  await sees("Ground, now: used by Cling and Tuck.");
  await sees("In Air: used by Tuck; Cling not active here.");
  await press(driver, "Try Air now");
  await sees("Air, now: used by Tuck; Cling not active here.");
  await driver.actions().keyUp("k").sendKeys(Key.ESCAPE).perform();
  await press(driver, "Play");
  await press(driver, "Record a take");
  await find(driver, "[data-testid=live-frame]");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "As table");
  await expect.poll(() => textOf(driver, "[data-testid=tape-table]")).toContain("Ground mode begins");
});

test("a stick is made of four controls; the dial shows where it faces, and opposites are tried live", async () => {
  await openWire();
  for (let k = 0; k < 2; k++) await press(driver, "Add a control");
  await openPlace("Sticks");
  await press(driver, "Make a stick of four controls");
  await press(driver, "Start listening");
  await driver.actions().keyDown("d").perform();
  const digit = () => textOf(driver, "[data-testid=digit-stick]");
  await waitFor(driver, "right", async () => (await digit()).startsWith("6"));
  await driver.actions().keyDown("a").perform();
  await waitFor(driver, "neither", async () => (await digit()).startsWith("5"));
  await driver.actions().keyUp("a").keyUp("d").perform();
  const dial = await find(driver, "[data-testid=dial-stick]");
  await driver.actions().move({ origin: dial }).press().move({ origin: dial, x: -60 }).perform();
  await waitFor(driver, "left, by pulling", async () => (await digit()).startsWith("4"));
  await driver.actions().release().perform();
  await waitFor(driver, "let go", async () => (await digit()).startsWith("5"));
});

test("layouts are stored, applied while playing, exported, and imported with unknown controls reported", async () => {
  await openWire();
  await openPlace("Keys");
  await press(driver, "Keep these keys");
  await press(driver, "Save Layout 1 as a file");
  const file = join(session.downloads, "layout-1.layout.json");
  await waitFor(
    driver,
    "the file",
    async () => existsSync(file) && readFileSync(file, "utf8").includes("bindings"),
  );
  const layout = JSON.parse(readFileSync(file, "utf8")) as {
    name: string;
    bindings: Record<string, string[][]>;
  };
  layout.name = "Left hand";
  layout.bindings = { leap: [["key:KeyF"]], anchor: [["key:KeyG"]] };
  const other = join(session.downloads, "left.json");
  writeFileSync(other, JSON.stringify(layout));
  const torn = join(session.downloads, "torn.json");
  writeFileSync(torn, JSON.stringify({ ...layout, bindings: { leap: [["F"]] } }));
  const picker = await driver.findElement(By.css("[data-testid=layout-picker]"));
  await picker.sendKeys(torn);
  await waitFor(driver, "the refusal", async () =>
    (await textOf(driver, "[aria-label=Notices]")).includes("'F' is not a key or button"),
  );
  await picker.sendKeys(other);
  await waitFor(driver, "what it lacks", async () =>
    (await textOf(driver, "[aria-label=Notices]")).includes(
      'It binds "anchor", which this kit does not have',
    ),
  );
  await press(driver, "Start listening");
  await driver.actions().sendKeys("f").perform();
  await sees("F plays nothing here");
  const frame = async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))![1]);
  const before = await frame();
  await press(driver, "Put on Left hand");
  await driver.actions().sendKeys("f").perform();
  await sees("F plays Leap");
  await expect.poll(frame).toBeGreaterThan(before);
});

test("the figures count extended presses, and key combinations are tested", async () => {
  await openWire();
  await openPlace("Keys");
  await press(driver, "Start listening");
  await driver.actions().keyDown("k").keyDown(Key.SPACE).perform();
  await waitFor(driver, "both held", async () =>
    (await textOf(driver, "[data-testid=together]")).includes("Most at once: 2"),
  );
  await driver.actions().keyUp("k").keyUp(Key.SPACE).perform();
  await find(driver, '[aria-label="Brace with Leap: seen together"]');
  await openPlace("Figures");
  await driver.executeScript(`
    const moment = performance.now(); // one time for both, or they may fall to either side of a frame's edge
    for (const type of ["keydown", "keyup"]) {
      const event = new KeyboardEvent(type, { code: "KeyK", bubbles: true });
      window.dispatchEvent(Object.defineProperty(event, "timeStamp", { value: moment }));
    }`);
  await waitFor(driver, "the stretched press", async () =>
    /kept\s+1/.test(await textOf(driver, "[data-testid=figures]")),
  );
});
