import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { dirname, extname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { unzipSync, zipSync, type Zippable } from "fflate";
import { By, Key, type WebDriver } from "selenium-webdriver";
import { afterAll, beforeEach, expect, test } from "vitest";
import type { Take, Takes } from "#core";
import {
  choose,
  clickOn,
  describeCanvas,
  find,
  openBelfry,
  openDemo,
  press,
  readSaved,
  textOf,
  waitFor,
  openForm,
  saveFile,
} from "./browser";
import { runFirst } from "./tabPage";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;
const folder = mkdtempSync(join(tmpdir(), "moss-tap-back-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeEach(() => void (driver = session.driver));

function put(name: string, content: string | Uint8Array): string {
  const path = join(folder, name);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, content);
  return path;
}

const saved = (wanted: string | RegExp) => readSaved(session, wanted);

const readIn = async (...paths: string[]) =>
  (await find(driver, "[data-testid=take-in-picker]")).sendKeys(paths.join("\n"));

const down = (key: string) => driver.actions().keyDown(key).perform();
const up = (key: string) => driver.actions().keyUp(key).perform();
/** Returns the text shown for copying, once it is there. */
const copiedText = () =>
  waitFor(
    driver,
    "the text",
    async () => (await (await find(driver, "#text")).getAttribute("value")) || false,
  );
const framesPlayed = async () => (await describeCanvas(driver, "stage")).frame;
const playOn = async (frames: number) => {
  const from = await framesPlayed();
  await waitFor(driver, `${frames} frames more`, async () => (await framesPlayed()) >= from + frames);
};

test("the playable page is opened from disk, played with a key held while it is clicked, saved, and imported", async () => {
  await openDemo(session, "belfry-runner");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Hand over");
  await saveFile(driver, "Playable page", "belfry-runner.page.html");
  const page = put("page.html", await saved("belfry-runner.page.html"));
  await driver.get(pathToFileURL(page).href);
  await find(driver, "#turn");
  await down(Key.ARROW_RIGHT);
  await clickOn(driver, "#turn");
  // A control held before the start is not a press of the round until it goes down again.
  await up(Key.ARROW_RIGHT);
  await down(Key.ARROW_RIGHT);
  await playOn(20);
  await down(" ");
  await playOn(8);
  await up(" ");
  await clickOn(driver, "#turn");
  await up(Key.ARROW_RIGHT);
  await expect.poll(() => textOf(driver, "#rounds")).toMatch(/^0:0\d, by keys$/);
  const name = await find(driver, `[aria-label="Name of Round 1"]`);
  await name.sendKeys(Key.chord(Key.CONTROL, "a"), "First leap", Key.ENTER);
  await expect.poll(() => textOf(driver, "#heard")).toContain("Hop performed");
  await clickOn(driver, "#turn");
  await driver
    .actions()
    .move({ origin: await find(driver, "[data-control=leap]") })
    .press()
    .perform();
  await playOn(6);
  await driver.actions().release().perform();
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await (await find(driver, "#player")).sendKeys("Wren");
  // No request was made to any host.
  await expect
    .poll(
      async () =>
        await driver.executeScript(
          "return performance.getEntriesByType('resource').map(entry => entry.name)",
        ),
    )
    .toEqual([]);
  await press(driver, "Save 2 rounds as one file");
  const file = put("back.takes.json", await saved("belfry-runner-wren.takes.json"));
  const { takes } = JSON.parse(readFileSync(file, "utf8")) as Takes;
  expect(takes.map(({ player, device, lanes }) => [player, device, Object.keys(lanes).sort()])).toEqual([
    ["Wren", "keys", ["leap", "right"]],
    ["Wren", "touch", ["leap"]],
  ]);
  await clickOn(driver, "#copying summary");
  await expect.poll(copiedText).toBe(readFileSync(file, "utf8"));

  await driver.get(session.address);
  await clickOn(driver, "[data-testid^=kit-] a");
  await press(driver, "Hand over");
  await readIn(file);
  await find(driver, `//li[b="Wren, Round 2" and contains(., "is with the kit")]`);
  await expect.poll(() => textOf(driver, "[data-testid=open-take]")).toContain("Wren, First leap");
  await press(driver, "Play");
  await choose(driver, "listed", "takes by Wren");
  const names = async () =>
    Promise.all(
      (await driver.findElements(By.css('li input[aria-label^="Name of"]'))).map(field =>
        field.getAttribute("value"),
      ),
    );
  await waitFor(
    driver,
    "the two by Wren",
    async () => (await names()).join() === "Wren, First leap,Wren, Round 2",
  );
  const note = await find(driver, 'textarea[aria-label^="Note on"]');
  await note.sendKeys("leapt too late", Key.TAB);
  await choose(driver, "listed", "takes with a note");
  await waitFor(driver, "the noted take alone", async () => (await names()).join() === "Wren, First leap");
  await press(driver, "Undo");
  await press(driver, "Undo");
  await waitFor(driver, "the four takes of before", async () => (await names()).length === 4);
});

test("in a strict sandbox without storage and downloads, the page plays and shows its rounds as text", async () => {
  await openDemo(session, "rope-catch");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Hand over");
  await saveFile(driver, "Playable page", "rope-catch.page.html");
  put("sandbox/page.html", await saved("rope-catch.page.html"));
  const frame = `<!doctype html><iframe sandbox="allow-scripts" src="page.html" width="900" height="700"></iframe>`;
  await driver.get(pathToFileURL(put("sandbox/box.html", frame)).href);
  await driver.switchTo().frame(0);
  await clickOn(driver, "#turn");
  // The first prompt is shown within the first second.
  await playOn(60);
  await down("a");
  await playOn(6);
  await up("a");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await clickOn(driver, "#copying summary");
  await expect
    .poll(async () => (JSON.parse(await copiedText()) as Takes).takes[0])
    .toMatchObject({
      kit: "rope-catch",
      device: "keys",
    });
  await driver.switchTo().defaultContent();
});

test("a table from another program is mapped, imported with unrecognised items listed, and the mapping is stored", async () => {
  await openBelfry(session);
  // The takes on Play lead to the import, which has the focus then.
  await press(driver, "Takes or a recording from files");
  await expect
    .poll(() => driver.executeScript("return document.activeElement.textContent"))
    .toBe("Read files …");
  const rows = [
    "at,key,how",
    "0.5,J1,down",
    "0.75,J1,up",
    "1,Run,down",
    "2,Run,up",
    "2.5,J1,sideways",
    "3,Tilt,-0.5",
    "3.5,Leapt,1",
  ];
  await readIn(put("game.csv", rows.join("\n")));
  await find(driver, `//h2[.="Read in game.csv"]`);
  await choose(driver, "what a row is", "one change");
  await choose(driver, "column of controls", "key");
  await choose(driver, "column of values", "how");
  await choose(driver, "column of times", "at");
  await choose(driver, "unit of times", "seconds");
  await choose(driver, "what J1 plays", "Leap");
  await find(driver, `//*[contains(text(), "“Run” plays no control here; 2 values were left out")]`);
  await choose(driver, "what Run plays", "Right");
  await choose(driver, "what Tilt plays below 0", "Left");
  await choose(driver, "what Leapt plays", "Hop");
  await expect
    .poll(() => textOf(driver, `svg[aria-label="Preview of its lanes"]`))
    .toMatch(/Leap.*Right.*Left.*Hop/s);
  await press(driver, "Read it in");
  await find(driver, `//*[starts-with(normalize-space(.), "It is read in with 1 row left out")]`);
  await expect
    .poll(() => textOf(driver, `section[aria-label="Left out, not recognised"]`))
    .toContain("line 6: “sideways” is no value of J1");
  await press(driver, "Close");
  await expect.poll(() => textOf(driver, "[data-testid=open-take]")).toContain("game");
  // The game performed the move later than the rules, which had it on the frame of the press.
  await find(driver, `//button[contains(@aria-label, "differ from the game")]`);
  await press(driver, "As table");
  await expect.poll(() => textOf(driver, "table")).toMatch(/30.*Leap/s);
  await readIn(put("game two.csv", rows.slice(0, 3).join("\n")));
  await find(driver, `[aria-label="what J1 plays: Leap"]`);
  const complaints = By.css('section[aria-label="Not recognised in the preview"]');
  await expect.poll(() => driver.findElements(complaints)).toEqual([]);
  await press(driver, "Close");
});

test("words of a column are mapped one by one, also those that only the whole table has; its speed is read", async () => {
  await openBelfry(session);
  const states = new Map([
    [10, "Ran"],
    [2400, "Leapt"],
  ]);
  const rows = Array.from({ length: 2500 }, (_, k) => `${k},${states.get(k) ?? ""},${k === 5 ? 0.5 : 1}`);
  await press(driver, "Takes or a recording from files");
  await readIn(put("states.csv", ["# build 7", "frame,state,time_scale", ...rows].join("\n")));
  await find(driver, `[aria-label="what time_scale plays: the speed, 1 is full"]`);
  await choose(driver, "what state: Ran plays", "Leap");
  await expect
    .poll(() => textOf(driver, `svg[aria-label="Preview of its lanes"]`))
    .toMatch(/Leap.*slowed, stopped/s);
  await press(driver, "Read it in");
  await expect
    .poll(() => textOf(driver, `section[aria-label="Left out, not recognised"]`))
    .toContain("line 2403: “state: Leapt” plays no control here");
  await choose(driver, "what state: Leapt plays", "Hop");
  await press(driver, "Read it in once more");
  await expect.poll(() => driver.findElements(By.css("[role=dialog]"))).toEqual([]);
  await press(driver, "Prove");
  await find(driver, `//*[contains(normalize-space(.), "The game beside the rules, in 1 take")]`);
});

const takeOf = (n: number, presses: number): Take => ({
  format: "moss-tap/take",
  version: 1,
  id: `t${n}`,
  name: `Take ${n}`,
  kit: "belfry-runner",
  rate: 60,
  frames: 100_000,
  lanes: { leap: Array.from({ length: presses }, (_, k): [number, number] => [k * 2 + 0.25, (k + 1) % 2]) },
});

/** Returns a pack of takes, the last name of which leads out of the pack. */
function packOf(count: number, presses: number): Uint8Array {
  const files: Zippable = {};
  for (let n = 1; n <= count; n++)
    files[`${n}.take.json`] = new TextEncoder().encode(JSON.stringify(takeOf(n, presses)));
  files["../out.take.json"] = files["1.take.json"]!;
  return zipSync(files, { level: 0 });
}

test("a thousand takes are imported with a list of refusals; a cancelled import leaves nothing", async () => {
  await openBelfry(session);
  await press(driver, "Hand over");
  await readIn(put("many.zip", packOf(1000, 20)));
  await press(driver, "Show the list");
  const list = await textOf(driver, `[role=dialog]`);
  expect(list).toContain("1001 things read: 1000 taken in, 1 not.");
  expect(list).toMatch(/\.\.\/out\.take\.json\s+its name leads out of the pack/);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "Undo");
  const openTake = () => textOf(driver, "[data-testid=open-take]");
  await waitFor(driver, "the take of before", async () => !(await openTake()).includes("Take "));
  await readIn(put("large.zip", packOf(160, 40_000)));
  await find(driver, "progress");
  await press(driver, "Cancel");
  await waitFor(
    driver,
    "no reading",
    async () => (await driver.findElements(By.css("progress"))).length === 0,
  );
  await expect.poll(openTake).not.toContain("Take ");
});

test("everything is drawn, packed and saved as one file, which the shelf imports", async () => {
  // The fonts of pictures arrive late the first time: they are waited for.
  await runFirst(
    driver,
    `const real = fetch;
     let isFirst = true;
     window.fetch = async (path, ...rest) => {
       if (String(path).includes("parts.json") && isFirst) {
         isFirst = false;
         await new Promise(done => setTimeout(done, 1500));
       }
       return real(path, ...rest);
     };`,
  );
  await openBelfry(session);
  await press(driver, "Hand over");
  await openForm(driver, "Pictures");
  await press(driver, "Create the pictures: Pictures");
  await saveFile(driver, "Pictures", "tape.svg");
  await expect
    .poll(async () => (await saved("tape.svg")).toString())
    .toMatch(/^<svg [^>]*xmlns[^]*<text[^]*Leap/);
  await openForm(driver, "All in one");
  await press(driver, "Create the zip: All in one");
  await press(driver, "Save file belfry-runner.all.zip");
  const bytes = await saved("belfry-runner.all.zip");
  const files = unzipSync(bytes);
  const names = Object.keys(files);
  for (const wanted of [
    /^pictures\/tape\.png$/,
    /^pictures\/map-hop\.svg$/,
    /^page\/.*html$/,
    /^runtime\/.*mjs$/,
  ])
    expect(
      names.some(name => wanted.test(name)),
      String(wanted),
    ).toBe(true);
  expect([...files["pictures/tape.png"]!.slice(1, 4)]).toEqual(
    [..."PNG"].map(letter => letter.charCodeAt(0)),
  );
  const map = new TextDecoder().decode(files["pictures/map-hop.svg"]);
  expect(map).toContain("<title>Hop</title>");
  expect(map).not.toMatch(/class=|var\(|tabindex|aria-/);
  // Drawn and made again, the same kit is the same file.
  await press(driver, "Play");
  await press(driver, "Hand over");
  await openForm(driver, "All in one");
  await press(driver, "Create the zip: All in one");
  await press(driver, "Save file belfry-runner.all.zip");
  const again = await saved(/^belfry-runner\.all .*zip$/);
  const others = unzipSync(again);
  const differing = names.filter(name => !others[name] || Buffer.compare(others[name], files[name]!) !== 0);
  expect(differing).toEqual([]);
  expect(Buffer.compare(again, bytes)).toBe(0);
  await driver.get(session.address);
  await (await find(driver, "[data-testid=file-picker]")).sendKeys(put("all.zip", bytes));
  await find(driver, `//*[contains(text(), "on the shelf already, word for word, with these takes")]`);
});

test("the script of the vectors also runs in a browser, and reports every vector as correct", async () => {
  await openDemo(session, "rope-catch");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Hand over");
  await openForm(driver, "Test vectors");
  await press(driver, "Create them: inputs are searched for every number: Test vectors");
  await press(driver, "Save file rope-catch.vectors.zip");
  for (const name of ["moss-tap-runtime.mjs", "run-vectors.mjs"]) await saveFile(driver, "Runtime", name);
  const files: Record<string, Uint8Array> = {
    ...unzipSync(await saved("rope-catch.vectors.zip")),
    "moss-tap-runtime.mjs": await saved("moss-tap-runtime.mjs"),
    "run-vectors.mjs": await saved("run-vectors.mjs"),
    "index.html": new TextEncoder().encode(
      `<!doctype html><link rel="icon" href="data:,"><body><script type="module" src="run-vectors.mjs"></script>`,
    ),
  };
  const types: Record<string, string> = { ".html": "text/html", ".mjs": "text/javascript" };
  const server = createServer(({ url = "/" }, response) => {
    const found = files[decodeURIComponent(url.slice(1)) || "index.html"];
    response.setHeader(
      "content-type",
      types[extname(url)] ?? (url === "/" ? "text/html" : "application/json"),
    );
    response.writeHead(found ? 200 : 404).end(found);
  });
  await new Promise<void>(ready => server.listen(0, "127.0.0.1", ready));
  const { port } = server.address() as { port: number };
  try {
    await driver.get(`http://127.0.0.1:${port}/`);
    await find(driver, `//p[.="all as they must be"]`);
    await expect.poll(async () => (await textOf(driver, "body")).match(/^ok bare\//gm)).toHaveLength(4);
  } finally {
    server.close();
  }
});
