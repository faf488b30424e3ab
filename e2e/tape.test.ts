import { By, Key, type WebDriver, type WebElement } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import {
  choose,
  clickOn,
  describeCanvas,
  find,
  openBelfry,
  press,
  textOf,
  waitFor,
  chooseRule,
} from "./browser";
import { useSession } from "./session";

const LABEL_PX = 196;
const RULER_PX = 36;
const ROW_PX = 24;

const session = useSession();
let driver: WebDriver;
let tape: WebElement;

beforeEach(async () => {
  driver = session.driver;
  await openBelfry(session);
  await press(driver, "Open Sloppy climb");
  tape = await find(driver, "[data-testid=tape]");
});

/** Returns the names of the rows drawn on the canvas. */
async function rowNames(): Promise<string[]> {
  tape = await find(driver, "[data-testid=tape]");
  return [...(await describeCanvas(driver, "tape")).rows];
}

/**
 * Returns a position on the canvas, relative to its centre, as the driver's pointer expects it. 8 px per
 * frame.
 */
async function place(row: string, frame: number): Promise<{ origin: WebElement; x: number; y: number }> {
  tape = await find(driver, "[data-testid=tape]");
  const { rows, firstFrame, scrollPx } = await describeCanvas(driver, "tape");
  const at = rows.indexOf(row);
  expect(at, `the row of ${row}`).toBeGreaterThanOrEqual(0);
  const box = await tape.getRect();
  const x = LABEL_PX + (frame - firstFrame) * 8 - box.width / 2;
  const y = RULER_PX + at * ROW_PX + ROW_PX / 2 - scrollPx - box.height / 2;
  return { origin: tape, x: Math.round(x), y: Math.round(y) };
}

/** Raises the dock by so many steps, or lowers it by a negative number. */
async function raiseTape(steps: number): Promise<void> {
  const grip = await find(driver, "[aria-label='Height of the tape']");
  await grip.sendKeys(...Array<string>(Math.abs(steps)).fill(steps > 0 ? Key.ARROW_UP : Key.ARROW_DOWN));
}

const LOST_BUTTON = "//button[contains(., ' lost')]";

/** Selects a lost press from the list; its frame comes into view. */
async function chooseLost(words: string): Promise<void> {
  await clickOn(driver, LOST_BUTTON);
  await clickOn(
    driver,
    `//*[@data-testid="lost-list"]//button[contains(., "${words}") and contains(., "Saved by")]`,
  );
  await waitFor(driver, "its fate", async () => (await textOf(driver, "[data-testid=fate]")).includes(words));
}

test("a lost press shows why, and one button makes the smallest change that saves it", async () => {
  await expect.poll(() => textOf(driver, LOST_BUTTON)).toBe("5 presses lost");
  await chooseLost("Leap at 202");
  await expect
    .poll(() => textOf(driver, "[data-testid=fate]"))
    .toContain("Footing opened at 210, 2f after the buffer of Hop ran out.");
  await press(driver, "Hop: buffer 8f instead of 6f");
  await waitFor(driver, "the press saved", async () =>
    (await textOf(driver, "[data-testid=fate]")).includes(
      "Leap at 202 became Hop at 210, by buffer after 8f.",
    ),
  );
  await expect.poll(() => textOf(driver, LOST_BUTTON)).toBe("4 presses lost");
  await press(driver, "Undo");
  await expect.poll(() => textOf(driver, LOST_BUTTON)).toBe("5 presses lost");
});

test("the end of a buffer is pulled on the canvas, the hop appears, and undo is one step; Escape cancels completely", async () => {
  await chooseLost("Leap at 202");
  const grip = await place("Hop", 209);
  const target = await place("Hop", 211);
  await driver
    .actions()
    .move(grip)
    .press()
    .move({ ...grip, x: grip.x + 9 })
    .move(target)
    .release()
    .perform();
  await waitFor(driver, "the press saved", async () =>
    (await textOf(driver, "[data-testid=fate]")).includes("became Hop at 210"),
  );
  await press(driver, "Undo");
  await waitFor(driver, "the press lost again", async () =>
    (await textOf(driver, "[data-testid=fate]")).includes("was lost"),
  );
  await driver.actions().move(grip).press().move(target).sendKeys(Key.ESCAPE).release().perform();
  await waitFor(driver, "nothing changed", async () =>
    (await textOf(driver, "[data-testid=fate]")).includes("was lost"),
  );
  await expect
    .poll(async () => await (await driver.findElement(By.xpath("//button[.='Undo']"))).isEnabled())
    .toBe(false);
});

test("presses are painted, moved and wiped on a lane, and each is one step of undo", async () => {
  await press(driver, "Paint");
  await driver
    .actions()
    .move(await place("Brace", 20.5))
    .press()
    .move(await place("Brace", 30.5))
    .move(await place("Brace", 44.5))
    .release()
    .perform();
  await press(driver, "As table");
  const rows = async () =>
    (await textOf(driver, "[data-testid=tape-table]"))
      .split("\n")
      .map(line => line.replace(/ *must *never$/, ""))
      .filter(line => line.includes("Brace") || line.includes("Cling"));
  await waitFor(driver, "the painted press", async () =>
    (await rows()).some(line => line.startsWith("20f") && line.includes("goes down")),
  );
  await expect
    .poll(async () => (await rows()).slice(0, 3).map(line => line.replace(/ [\d.]+ ms/, "")))
    .toEqual(["20f Brace goes down", "38f Cling fired", "45f Brace comes up"]);
  await press(driver, "As tape");
  tape = await find(driver, "[data-testid=tape]");
  await driver
    .actions()
    .keyDown(Key.SHIFT)
    .move(await place("Brace", 18.5))
    .press()
    .move(await place("Brace", 30.5))
    .move(await place("Brace", 47.5))
    .release()
    .keyUp(Key.SHIFT)
    .perform();
  await press(driver, "As table");
  await waitFor(driver, "the press wiped", async () => !(await rows()).some(line => line.startsWith("20f")));
  await press(driver, "Undo");
  await waitFor(driver, "the press back", async () => (await rows()).some(line => line.startsWith("20f")));
});

test("the tape is walked by keys alone: events, rows, fates, a measured stretch, the sheet of keys", async () => {
  const at = () => textOf(driver, "[data-testid=playhead]");
  await tape.sendKeys("]");
  const first = await at();
  await tape.sendKeys("]", "]", "[", "[");
  await expect.poll(at).toBe(first);
  await tape.sendKeys(...Array<string>((await rowNames()).indexOf("Hop")).fill(Key.ARROW_DOWN), "}");
  await expect.poll(at).toBe("37f");
  await tape.sendKeys(Key.ENTER);
  await waitFor(driver, "a fate", async () =>
    (await textOf(driver, "[data-testid=fate]")).includes("became Hop at 37"),
  );
  await tape.sendKeys("s", ...Array<string>(12).fill(Key.ARROW_RIGHT), "s");
  await expect.poll(() => textOf(driver, "[data-testid=measure]")).toContain("37–49: 12f 200 ms");
  await tape.sendKeys("?");
  await waitFor(
    driver,
    "the sheet",
    async () => (await driver.findElements(By.xpath("//h2[.='Keys of the tape']"))).length > 0,
  );
  await driver.actions().sendKeys(Key.ESCAPE).perform();
});

test("a row selected by keys stays visible, also in a low dock", async () => {
  await raiseTape(-8);
  const scroll = async () => (await describeCanvas(driver, "tape")).scrollPx;
  const count = (await rowNames()).length;
  await tape.sendKeys(...Array<string>(count).fill(Key.ARROW_DOWN));
  const { height } = await tape.getRect();
  const wanted = count * ROW_PX - (height - RULER_PX);
  expect(wanted).toBeGreaterThan(0);
  await waitFor(driver, "the last row", async () => (await scroll()) >= wanted - 1);
  await tape.sendKeys(...Array<string>(count).fill(Key.ARROW_UP));
  await waitFor(driver, "the first row", async () => (await scroll()) === 0);
});

test("a frame chosen in the table is shown with what came before it, there and in the next view", async () => {
  await press(driver, "As table");
  const frames = (await textOf(driver, "[data-testid=tape-table]")).matchAll(/^(\d+)f/gm);
  // One that lies so far from the end that the tape can begin anywhere before it.
  const listed = Array.from(frames, ([, frame]) => Number(frame));
  const chosen = listed.findLast(frame => frame < listed.at(-1)! - 150)!;
  expect(chosen).toBeGreaterThan(150);
  await press(driver, `${chosen}f`);
  await press(driver, "As tape");
  const before = async () => chosen - (await describeCanvas(driver, "tape")).firstFrame;
  await expect.poll(before).toBeGreaterThan(20);
  await press(driver, "Tune");
  await find(driver, "[aria-label=Studies]");
  await expect.poll(before).toBeGreaterThan(20);
});

test("the controls are in sight when one begins to play, also after a press was shown far below them", async () => {
  await raiseTape(-8);
  await chooseLost("Leap at 202");
  const scroll = async () => (await describeCanvas(driver, "tape")).scrollPx;
  await waitFor(driver, "the press in view", async () => (await scroll()) > 0);
  await press(driver, "Start listening");
  await waitFor(driver, "the first rows", async () => (await scroll()) === 0);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
});

test("a stretch is cut, pasted elsewhere and shifted; undo takes each back", async () => {
  const hops = async () => {
    await press(driver, "As table");
    const lines = (await textOf(driver, "[data-testid=tape-table]"))
      .split("\n")
      .filter(line => line.includes("Hop performed"));
    await press(driver, "As tape");
    tape = await find(driver, "[data-testid=tape]");
    return lines.map(line => parseInt(line, 10));
  };
  const before = await hops();
  expect(before.slice(0, 2)).toEqual([37, 86]);
  await tape.sendKeys(
    ...Array<string>(3).fill(Key.chord(Key.SHIFT, Key.ARROW_RIGHT)),
    "s",
    ...Array<string>(15).fill(Key.ARROW_RIGHT),
    "s",
    ".",
    ".",
    ".",
  );
  await expect.poll(() => textOf(driver, "[data-testid=measure]")).toContain("33–48");
  await expect.poll(async () => (await hops())[0]).toBe(40);
  await tape.sendKeys("x");
  await expect.poll(async () => (await hops())[0]).toBe(86);
  for (let k = 0; k < 4; k++) await press(driver, "Undo");
  await expect.poll(hops).toEqual(before);
});

test("the tape shows the rows with content, on Shape those of the rule, or all; a lost press adds its own", async () => {
  await expect.poll(rowNames).not.toContain("Left");
  await press(driver, "Paint");
  await waitFor(driver, "every lane", async () => (await rowNames()).includes("Left"));
  await press(driver, "Painting");
  await press(driver, "Shape");
  await chooseRule(driver, "Tuck");
  await waitFor(driver, "the rows of Tuck", async () => !(await rowNames()).includes("Hop"));
  await expect.poll(rowNames).toEqual(expect.arrayContaining(["Brace", "Tuck"]));
  await chooseLost("Leap at 202");
  await expect
    .poll(rowNames)
    .toEqual(expect.arrayContaining(["Leap", "Leap press", "Footing", "Hop", "Tuck"]));
  await choose(driver, "Rows shown", "all rows");
  await waitFor(driver, "all rows", async () => (await rowNames()).length === 11);
  await press(driver, "Play");
  await expect.poll(rowNames).not.toContain("Left");
});

test("rows are moved and groups folded, by pointer and by key, and are stored", async () => {
  await choose(driver, "Rows shown", "all rows");
  await waitFor(driver, "all rows", async () => (await rowNames()).length === 11);
  const { width, height } = await tape.getRect();
  const name = (row: number) => ({
    origin: tape,
    x: Math.round(60 - width / 2),
    y: Math.round(RULER_PX + row * ROW_PX + 12 - height / 2),
  });
  await driver.actions().move(name(0)).press().move(name(1)).move(name(2)).release().perform();
  await waitFor(driver, "Left under Leap", async () => (await rowNames())[2] === "Left");
  await driver
    .actions()
    .move({ ...name(0), x: Math.round(14 - width / 2) })
    .click()
    .perform();
  await waitFor(driver, "controls folded", async () => (await rowNames())[0] === "Controls, 4 folded");
  await tape.sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.chord(Key.ALT, Key.ARROW_DOWN), "g");
  await waitFor(driver, "patterns folded", async () => (await rowNames())[2] === "Patterns, 4 folded");
  await driver.navigate().refresh();
  await waitFor(driver, "the same rows", async () => (await rowNames())[2] === "Patterns, 4 folded");
  tape = await find(driver, "[data-testid=tape]");
  await tape.sendKeys("g", ...Array<string>(5).fill(Key.ARROW_DOWN), "g");
  await waitFor(driver, "all unfolded", async () => (await rowNames()).length === 11);
  await expect.poll(async () => (await rowNames()).slice(0, 3)).toEqual(["Right", "Leap", "Left"]);
  await expect.poll(async () => (await rowNames()).slice(5, 7)).toEqual(["Cling", "Leap press"]);
});

test("a pull counts its changes in the other takes while it lasts; a variant is stored, compared and restored", async () => {
  await press(driver, "Open Clean climb");
  await press(driver, "All takes");
  await raiseTape(4);
  await press(driver, "Variants");
  await press(driver, "Keep these rules as a variant");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  const strip = () => textOf(driver, "[data-testid=strip-sloppy-climb]");
  await waitFor(driver, "the other take", async () => (await strip()).includes("5 presses lost"));
  tape = await find(driver, "[data-testid=tape]");
  await tape.sendKeys(...Array<string>((await rowNames()).indexOf("Hop")).fill(Key.ARROW_DOWN), "}");
  const hop = Number((await textOf(driver, "[data-testid=playhead]")).replace("f", ""));
  const grip = await place("Hop", hop + 7);
  const target = await place("Hop", hop + 13);
  await driver.actions().move(grip).press().move(target).perform();
  await waitFor(driver, "presses saved elsewhere", async () =>
    /[0-4] press(es)? lost −\d/.test(await strip()),
  );
  await driver.actions().release().perform();
  await press(driver, "Over it: Variant 1");
  await press(driver, "Restore Variant 1");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await waitFor(driver, "the rules as they were", async () => (await strip()).includes("5 presses lost"));
});

test("slow motion is painted on the lane of speed, and a hold takes longer there", async () => {
  const cling = async () => {
    await press(driver, "As table");
    const lines = (await textOf(driver, "[data-testid=tape-table]")).split("\n");
    await press(driver, "As tape");
    tape = await find(driver, "[data-testid=tape]");
    return Number(lines.find(line => line.includes("Cling fired"))!.split("f")[0]);
  };
  const before = await cling();
  await raiseTape(6);
  await tape.sendKeys(
    Key.HOME,
    ...Array<string>(Math.floor(before / 10) + 4).fill(Key.chord(Key.SHIFT, Key.ARROW_RIGHT)),
  );
  await press(driver, "Paint");
  await waitFor(driver, "the lane of speed", async () => (await rowNames()).at(-1) === "Speed");
  const first = async () => (await describeCanvas(driver, "tape")).firstFrame;
  await waitFor(
    driver,
    "the hold in sight",
    async () => (await first()) > before - 140 && (await first()) < before - 20,
  );
  const from = await place("Speed", before - 17.5);
  await driver
    .actions()
    .move(from)
    .press()
    .move({ ...from, x: from.x + 30 })
    .move(await place("Speed", before + 20.5))
    .release()
    .perform();
  await expect.poll(cling).toBeGreaterThan(before + 10);
  await press(driver, "Undo");
  await expect.poll(cling).toBe(before);
});

/** Moves fingers over the page, each along a line; `from` and `to` have a point a finger. */
async function moveFingers(
  from: readonly { x: number; y: number }[],
  to: readonly { x: number; y: number }[],
): Promise<void> {
  const send = (type: string, part: number) =>
    session.driver.sendDevToolsCommand("Input.dispatchTouchEvent", {
      type,
      touchPoints: from.map((point, id) => ({
        id,
        x: point.x + (to[id]!.x - point.x) * part,
        y: point.y + (to[id]!.y - point.y) * part,
      })),
    });
  await send("touchStart", 0);
  for (const part of [0.25, 0.5, 0.75, 1]) await send("touchMove", part);
  await session.driver.sendDevToolsCommand("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
}

test("a finger pulls the edge of a window, and two fingers or a button zoom the tape", async () => {
  const { driver } = session;
  await press(driver, "Shape");
  await chooseRule(driver, "Hop");
  const edge = await find(driver, '[role=slider][aria-label$="buffer on the map"]');
  const value = async () => Number(await edge.getAttribute("aria-valuenow"));
  const before = await value();
  const { x, y, width, height } = await driver.executeScript<DOMRect>(
    "return arguments[0].getBoundingClientRect()",
    edge,
  );
  const grip = { x: x + width / 2, y: y + height / 2 };
  // Downwards too: a finger that scrolled the page would lose the edge.
  await moveFingers([grip], [{ x: grip.x - 60, y: grip.y + 30 }]);
  await waitFor(driver, "a longer buffer", async () => (await value()) > before);
  const scale = async () => (await describeCanvas(driver, "tape")).pxPerFrame;
  const box = await driver.executeScript<DOMRect>(
    `return document.querySelector("[data-testid=tape]").getBoundingClientRect()`,
  );
  const at = (dx: number) => ({ x: box.x + 600 + dx, y: box.y + 80 });
  const all = await scale();
  await moveFingers([at(-40), at(40)], [at(-160), at(160)]);
  await waitFor(driver, "fewer frames", async () => (await scale()) > all * 2);
  const near = await scale();
  await press(driver, "−, farther");
  await waitFor(driver, "more frames", async () => (await scale()) < near);
});
