import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { lengthenTake } from "../bench/scenes";
import {
  choose,
  chooseRule,
  clickOn,
  find,
  openRule,
  press,
  textOf,
  typeOver,
  waitFor,
  openDemo,
  openKit,
  keptKit,
} from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(async () => {
  driver = session.driver;
});

async function openTune(demo: string): Promise<void> {
  await openDemo(session, demo, "tune");
}

const waitForFile = (name: string) =>
  waitFor(driver, name, async () => {
    const path = join(session.downloads, name);
    return existsSync(path) ? readFileSync(path, "latin1") : "";
  });
const study = (word: string) =>
  clickOn(driver, `//nav[@aria-label="Studies"]//button[span[text()="${word}"]]`);
const stateOf = async (name: string) =>
  (await find(driver, `[data-testid=study-${name}]`)).getAttribute("data-state");
const done = (name: string) => waitFor(driver, `${name} done`, async () => (await stateOf(name)) === "done");
const openTake = () => textOf(driver, "[data-testid=open-take]");
const playhead = () => textOf(driver, "[data-testid=playhead]");

test("the buffer that saves a lost press is found by a sweep, tried on the tape, discarded, kept, and undone while a key is held", async () => {
  await openTune("belfry-runner");
  await done("feel");
  await expect
    .poll(() => textOf(driver, "[data-testid=feel-report]"))
    .toMatch(
      /Hop: asked for 15 times: performed 11 times \(6 by coyote\), lost 4 times \(3 as Second hop used the press\); 1 press lost, the nearest by 11f/,
    );
  for (const kind of ["SVG", "PNG"]) await clickOn(driver, `button[aria-label^="Save as ${kind}: Feel"]`);
  expect(await waitForFile("feel.svg")).toMatch(/^<svg[^>]*>.*Feel: \d+ presses.*Hop.*used directly/s);
  expect((await waitForFile("feel.png")).slice(1, 4)).toBe("PNG");
  // The presses of the picture are walked by keys, and the tape follows.
  await driver.executeScript("document.querySelector('[data-testid^=feel-lane]').focus()");
  await driver.actions().sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN).perform();
  await find(driver, "[data-testid=chosen-stroke]");
  expect(await textOf(driver, "[data-testid=feel-chosen]")).toMatch(
    /^Hop: saved by coyote; 30f or more earlier/,
  );
  expect(await openTake()).toContain("Late at every edge");
  // Side by side the presses of each take have a column, the move with the largest difference is named.
  await choose(driver, "side by side", "take by take");
  await find(
    driver,
    `//figcaption[.="Hop differs most: A press eaten before the landing loses 1 of 2 presses, Late at every edge, by coyote none of 5; so few may differ by chance."]`,
  );
  expect(await driver.findElements({ css: "[data-testid=feel-side-by-side] thead th" })).toHaveLength(4);
  await driver.executeScript(`document.querySelector('svg[aria-label^="Clean climb, Hop: 5 used"]').focus()`);
  await driver.actions().sendKeys(Key.ARROW_DOWN).perform();
  await expect.poll(openTake).toContain("Clean climb");
  await study("Sweep");
  await press(driver, "Sweep");
  await done("sweep");
  // The takes are still side by side: a chart for each, and a line on where they differ.
  await expect
    .poll(() => textOf(driver, "[data-testid=sweep-groups]"))
    .toMatch(/Nothing wanted is lost from 0f for .*, from 17f for A press eaten before the landing\./);
  await choose(driver, "side by side", "together");
  await press(driver, "Sweep again");
  await done("sweep");
  await expect
    .poll(() => textOf(driver, "[data-testid=sweep-edges]"))
    .toMatch(/From 17f \(283.3 ms\) up, nothing wanted is lost; at 16f \(266.7 ms\), the value below, /);
  const chart = await find(driver, 'canvas[aria-label^="Hop: buffer, swept"]');
  await driver.executeScript("arguments[0].focus()", chart);
  const keys = (...of: string[]) =>
    driver
      .actions()
      .sendKeys(...of)
      .perform();
  await keys(Key.ARROW_RIGHT);
  await waitFor(driver, "7f tried", async () =>
    (await textOf(driver, "[data-testid=sweep-point]")).startsWith("7f"),
  );
  await keys(Key.ESCAPE);
  await waitFor(driver, "let go", async () =>
    (await textOf(driver, "[data-testid=sweep-point]")).startsWith("6f"),
  );
  await keys(...Array<string>(11).fill(Key.ARROW_RIGHT));
  await waitFor(driver, "17f tried", async () =>
    /^17f.*: 12 performed|^17f.*1 saved/s.test(await textOf(driver, "[data-testid=sweep-point]")),
  );
  await waitFor(driver, "the check follows", async () =>
    /^6 of 6/.test(await textOf(driver, "header [data-testid=proof-sum]")),
  );
  await keys(Key.ENTER);
  await find(driver, "[data-testid=study-sweep][data-old=true]");
  await openRule(driver, "Hop");
  await expect
    .poll(
      async () =>
        await (
          await find(driver, '[data-testid=sentence] input[aria-label^="buffer"]')
        ).getAttribute("value"),
    )
    .toBe("17f");
  await press(driver, "Start listening");
  await driver.actions().keyDown(Key.ARROW_RIGHT).perform();
  await press(driver, "Undo");
  await driver.actions().keyUp(Key.ARROW_RIGHT).sendKeys(Key.ESCAPE).perform();
  await waitFor(
    driver,
    "6f again",
    async () =>
      (await (
        await find(driver, '[data-testid=sentence] input[aria-label^="buffer"]')
      ).getAttribute("value")) === "6f",
  );
  await press(driver, "Tune");
  await find(driver, "[data-testid=study-sweep][data-old=false]");
});

test("a sweep of one number, its field of two, and shares of hands are saved as pictures; a pair of the field is tried", async () => {
  await openTune("belfry-runner");
  await study("Sweep");
  await press(driver, "Sweep");
  await done("sweep");
  for (const kind of ["SVG", "PNG"])
    await clickOn(driver, `button[aria-label="Save as ${kind}: Hop: buffer, swept"]`);
  const chart = await waitForFile("sweep.svg");
  expect(chart).toMatch(/^<svg[^>]*>.*>Hop: buffer, swept<.*>performed<.*nothing lost from here/s);
  expect(chart).not.toMatch(/="[^"]*(undefined|NaN)/);
  // The line of performed hops: a point a value, joined.
  expect(chart).toMatch(/<path[^>]* d=" ?M[^"]*(L[^"]*){20}/);
  expect((await waitForFile("sweep.png")).slice(1, 4)).toBe("PNG");
  await choose(driver, "second number", "Hop: coyote");
  await typeOver(driver, "to", "18");
  await press(driver, "Sweep again");
  await done("sweep");
  const cell = 'button[aria-label="Hop: buffer 17f, Hop: coyote 5f: 0 lost, 0 unwanted or gone"]';
  const pair = () => textOf(driver, "[data-testid=sweep-pair]");
  expect(await pair()).toMatch(
    /^Hop: buffer 6f, Hop: coyote 5f: 11 performed .*, 1 press lost .*; n = 4 runs\.$/,
  );
  await clickOn(driver, cell);
  await expect.poll(pair).toMatch(/^Hop: buffer 17f, Hop: coyote 5f: .*, 0 presses lost .*; n = 4 runs\.$/);
  await press(driver, "Keep 17f and 5f");
  await waitFor(driver, "the kept pair", async () =>
    /^Hop: buffer \(17f\)/.test(await textOf(driver, '[aria-label^="number"]')),
  );
  await press(driver, "Undo");
  await press(driver, "Save as SVG: Hop: buffer and Hop: coyote, swept");
  const field = await waitFor(driver, "the field", async () => {
    const file = readdirSync(session.downloads).find(name => /^sweep \(1\)\.svg$/.test(name));
    return file !== undefined && readFileSync(join(session.downloads, file), "utf8");
  });
  expect(field).toMatch(/→ Hop: buffer {3}↓ Hop: coyote.*>17f<.*●/s);
  await study("Hands");
  await typeOver(driver, "plays a take", "5");
  await press(driver, "Run the simulation");
  await done("hands");
  await press(driver, "Save as SVG: Hands: shares of plays");
  expect(await waitForFile("hands.svg")).toMatch(/Hands: shares of plays.*All meant presses.*\d+ of \d+/s);
});

test("two characters are compared with the same seeds; a press is opened in a repetition that lost it, and with its spread curve", async () => {
  await openTune("belfry-runner");
  await study("Hands");
  await press(driver, "… beside another hand, or another version");
  await choose(driver, "second character", "A limited hand");
  await typeOver(driver, "plays a take", "40");
  await press(driver, "Run the simulation");
  await done("hands");
  const hop = await textOf(driver, '//table[starts-with(@aria-label,"By rule")]//tr[th="Hop"]');
  const [steady, limited] = [...hop.matchAll(/(\d+) % \d+ % to \d+ %, \d+ of (\d+)/g)].map(([, share, n]) => [
    Number(share),
    Number(n),
  ]);
  expect(steady![1]).toBe(15 * 40);
  expect(steady![0]).toBeGreaterThan(limited![0]!);
  await clickOn(driver, '[data-testid=hardest] button[aria-label^="Who loses"]');
  await waitFor(driver, "the curve", async () =>
    /n = 40 plays a spread/.test(await textOf(driver, "[data-testid=spread]")),
  );
  const before = await openTake();
  await clickOn(driver, '[data-testid=hardest] button[aria-label^="Open a play"]');
  await waitFor(
    driver,
    "the play as a take",
    async () => (await openTake()) !== before && /steady/.test(await openTake()),
  );
  await press(driver, "Undo");
  await press(driver, "Estimate a hand from these takes");
  await waitFor(driver, "the fit", async () =>
    /onset .*give or take \d+ ms \(n = \d+/.test(await textOf(driver, "[data-testid=fitted]")),
  );
  await press(driver, "Take the second away");
  await choose(driver, "side by side", "take by take");
  await choose(driver, "character", "Each take’s own hand");
  await typeOver(driver, "plays a take", "5");
  await press(driver, "Run the simulation again");
  await done("hands");
  const heads = '//table[starts-with(@aria-label,"By rule")]//thead//th';
  await expect.poll(() => driver.findElements({ xpath: heads }).then(found => found.length)).toBe(4);
  expect(await textOf(driver, "[data-testid=aims]")).toMatch(
    /Clean climb: .*give or take \d+ ms; \d+ of \d+/,
  );
  expect(await textOf(driver, "[data-testid=hands-contrast]")).toMatch(/^They differ most in /);
});

test("a goal is asked, its field is filled, a pair is tried on the tape, put back, and the chosen one is kept", async () => {
  await openTune("belfry-runner");
  await study("Goal");
  await typeOver(driver, "percent of plays", "50");
  await typeOver(driver, "plays a take", "4");
  for (const [label, value] of [
    ["from", "4"],
    ["to", "8"],
    ["second from", "4"],
    ["second to", "8"],
  ])
    await typeOver(driver, label!, value!);
  await press(driver, "Find them");
  await done("goal");
  const field = await textOf(driver, "[data-testid=goal-field]");
  expect(field.split(/\s+/).filter(text => /^\d+$/.test(text)).length).toBe(25);
  const words = await textOf(driver, "[data-testid=goal-place]");
  const [, buffer, coyote] = /Chosen:\s*(\d+f) and (\d+f)/.exec(words)!;
  await clickOn(driver, 'button[aria-label^="8f and 8f:"]');
  await find(driver, '//button[contains(., "Keep 8f and 8f")]');
  await press(driver, "Put it back");
  await clickOn(driver, `button[aria-label^="${buffer} and ${coyote}:"]`);
  await press(driver, `Keep ${buffer} and ${coyote}`);
  const kit = await keptKit(driver, "the pair", made => made.moves?.[0]?.buffer === buffer);
  expect(kit.moves![0]!.needs![0]!.coyote).toBe(coyote);
});

test("the report of feel keeps the figures of its rules while they are moved", async () => {
  await openTune("belfry-runner");
  await done("feel");
  const figures = () => textOf(driver, '[aria-label="Prompts and patterns"]');
  const before = await figures();
  await press(driver, "Shape");
  await chooseRule(driver, "Leap press");
  await press(driver, "Move down");
  await press(driver, "Tune");
  await find(driver, "[data-testid=study-feel][data-old=true]");
  expect(await figures()).toBe(before);
});

test("an overlap is opened as a take and becomes a check; other rates list the losses", async () => {
  await openTune("clapper-duel");
  await study("Overlaps");
  await press(driver, "Look for overlaps");
  await done("overlaps");
  await expect
    .poll(async () => {
      await clickOn(driver, 'button[aria-label^="Strike press, then Quarter turn: always"]');
      return textOf(driver, "[data-testid=overlap]");
    })
    .toMatch(/Quarter turn fires Strike press on its way, .* of the inputs tried/);
  await clickOn(
    driver,
    '//li[contains(., "Quarter turn fires Strike press")]//button[text()="Open as a take"]',
  );
  await waitFor(driver, "the witness", async () => /Quarter turn fires/.test(await openTake()));
  await clickOn(
    driver,
    '//li[contains(., "Quarter turn fires Strike press")]//button[text()="Check that it never does"]',
  );
  await waitFor(driver, "a check more that fails", async () =>
    /^4 of 6 checks hold/.test(await textOf(driver, "header [data-testid=proof-sum]")),
  );
  await study("Rates");
  await press(driver, "Judge at these rates");
  await done("rates");
  await expect.poll(() => textOf(driver, "[data-testid=rates]")).toMatch(/Chime\s+.*gone.*\s+\d+ same/);
  await clickOn(driver, '[data-testid=rates] button[aria-label^="Chime at 30: "]');
  await clickOn(driver, "[data-testid=rate-differences] li button");
  await expect.poll(playhead).not.toMatch(/^0f/);
});

test("a long job goes on while another view is open, and is cancelled at once", async () => {
  const read = (name: string) =>
    JSON.parse(readFileSync(`demo/clapper-duel/${name}.json`, "utf8")) as unknown;
  // A hundred million frames: no machine ends before it is cancelled.
  const long = lengthenTake(read("1-clean-bout") as Take, 20_000);
  await openKit(session, read("kit") as Kit, [long], "tune");
  // Until takes are studied, nothing is known of a rule.
  const early = await waitFor(driver, "the study of the takes under way", () =>
    driver.executeScript<string | false>(
      `const bar = document.querySelector("[data-testid=study-feel]");
       return bar?.innerText.includes("n = 0 of 1 take") && bar.parentElement.innerText;`,
    ),
  );
  expect(early).not.toContain("never");
  await study("Sweep");
  await choose(driver, "hands", "by steady hands");
  await typeOver(driver, "plays a take", "2000");
  await press(driver, "Sweep");
  // Lines are drawn long before the end.
  await find(driver, '//*[@data-testid="study-sweep" and @data-state="working"]//*[contains(., "so far")]');
  await find(driver, 'section[aria-label="Sweep"] canvas');
  expect(await textOf(driver, "[data-testid=sweep-edges]")).toMatch(/^So far: /);
  expect(await stateOf("sweep")).toBe("working");
  await press(driver, "Cancel");
  await study("Hands");
  // A sweep has a field of the same name.
  await find(driver, "[data-testid=study-hands]");
  await typeOver(driver, "plays a take", "5000");
  await press(driver, "Run the simulation");
  await waitFor(driver, "progress", async () =>
    /\d+ %/.test(await textOf(driver, "[data-testid=study-hands]")),
  );
  await press(driver, "Wire");
  await press(driver, "Tune");
  await study("Hands");
  await expect.poll(() => stateOf("hands")).toBe("working");
  const began = Date.now();
  await press(driver, "Cancel");
  await waitFor(driver, "called off", async () => (await stateOf("hands")) === "stopped");
  expect(Date.now() - began).toBeLessThan(20_000);
});

test("an assist is created, compared with the same characters, activated in Play, judged by checks, and undone", async () => {
  await openTune("belfry-runner");
  await study("Assists");
  await clickOn(driver, '//button[b[text()="Much more time"]]');
  await typeOver(driver, "windows", "300");
  await press(driver, "Compare it on the takes");
  await expect
    .poll(() => textOf(driver, 'ul[aria-label="What changed between them"]'))
    .toMatch(/buffer 18f \(was 6f\), coyote 15f \(was 5f\)/);
  await study("Assists");
  await press(driver, "Compare it by the same hands");
  await expect.poll(() => textOf(driver, "[data-testid=hand-sentence-two]")).toMatch(/with “Much more time”/);
  await press(driver, "Play");
  await choose(driver, "Assist", "“Much more time” on");
  await press(driver, "Record a take");
  await driver.actions().keyDown(Key.ARROW_RIGHT).pause(100).keyUp(Key.ARROW_RIGHT).perform();
  await press(driver, "Stop and keep");
  await waitFor(driver, "the take", async () => /Take 5/.test(await openTake()));
  await press(driver, "Prove");
  await choose(driver, "Another version", "with “Much more time” on");
  await waitFor(driver, "judged with the assist", async () =>
    /With “Much more time” on\s+5 of 6 checks hold\s+not: Taps too far apart/.test(
      await textOf(driver, "[data-testid=beside]"),
    ),
  );
  await press(driver, "Tune");
  await study("Assists");
  await press(driver, "Delete this assist");
  await waitFor(
    driver,
    "gone",
    async () => !(await textOf(driver, "[data-testid=tune]")).includes("Compare it"),
  );
  await press(driver, "Put it back");
  await waitFor(driver, "back", async () =>
    (await textOf(driver, "[data-testid=tune]")).includes("Compare it"),
  );
});

test("two versions side by side: the changes, counts, and a link from each difference to its frame", async () => {
  await openTune("belfry-runner");
  await study("Variants");
  await press(driver, "Keep these rules as a variant");
  await openRule(driver, "Hop");
  await typeOver(driver, "coyote", "0f");
  await press(driver, "Tune");
  await study("Variants");
  await expect
    .poll(() => textOf(driver, 'ul[aria-label="What changed between them"]'))
    .toMatch(/Hop on Leap press, if Footing is open: buffer 6f, coyote 0f \(was 5f\)/);
  await press(driver, "Compare");
  await done("variants");
  await expect
    .poll(() => textOf(driver, "[data-testid=version-counts]"))
    .toMatch(/Hop asked for 15 times: performed 11 times \(6 by coyote\)/);
  await clickOn(driver, '[data-testid=version-counts] button[aria-label^="Hop: list"]');
  await waitFor(driver, "the differences of Hop alone", async () =>
    /Differences of Hop/.test(await textOf(driver, "[data-testid=tune]")),
  );
  await clickOn(driver, '//ul[@data-testid="differences"]//button[contains(., "Hop is gone")]');
  await waitFor(driver, "the take", async () => /Late at every/.test(await openTake()));
});
