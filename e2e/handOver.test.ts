import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import { find, openDemo, openForm, press, readSaved, saveFile, textOf, waitFor } from "./browser";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver & { sendAndGetDevToolsCommand(name: string, params: object): Promise<unknown> };

beforeEach(async () => {
  driver = session.driver as typeof driver;
});

/** Returns the text of the sheet on screen, or in print. */
const sheetText = (which: "sheet" | "sheet-print") =>
  driver.executeScript<string>(
    "return document.querySelector(`[data-testid=${arguments[0]}]`).shadowRoot.textContent",
    which,
  );

const PAPERS = [
  ["A4", 8.27, 11.69],
  ["Letter", 8.5, 11],
] as const;

test("the sheet is shown as printed, follows an edit, and prints to A4 and Letter with no rule split", async () => {
  await openDemo(session, "clapper-duel");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Hand over");
  await find(driver, "[data-testid=sheet]");
  await expect.poll(() => sheetText("sheet")).toMatch(/Toll.*buffer 6f/s);
  await expect.poll(() => sheetText("sheet-print")).toBe(await sheetText("sheet"));
  for (const [name, paperWidth, paperHeight] of PAPERS) {
    const { data } = (await driver.sendAndGetDevToolsCommand("Page.printToPDF", {
      paperWidth,
      paperHeight,
      preferCSSPageSize: false,
    })) as { data: string };
    const pdf = Buffer.from(data, "base64");
    writeFileSync(join(session.downloads, `${name}.pdf`), pdf);
    const pages = (pdf.toString("latin1").match(/\/Type\s*\/Page\b/g) ?? []).length;
    expect(pages, name).toBeGreaterThan(2);
    expect(pages, name).toBeLessThan(12);
  }
  await driver.sendAndGetDevToolsCommand("Emulation.setEmulatedMedia", { media: "print" });
  const { rules, shown } = await driver.executeScript<{
    rules: { cut: string; height: number }[];
    shown: number;
  }>(`
    const { shadowRoot } = document.querySelector("[data-testid=sheet-print]");
    const rules = [...shadowRoot.querySelectorAll(".rule, tr")].map(rule => ({
      cut: getComputedStyle(rule).breakInside,
      height: rule.getBoundingClientRect().height,
    }));
    return { rules, shown: [...document.body.children].filter(child => getComputedStyle(child).display !== "none").length };
  `);
  await driver.sendAndGetDevToolsCommand("Emulation.setEmulatedMedia", { media: "" });
  expect(shown).toBe(1);
  expect(rules.length).toBeGreaterThan(30);
  // No piece may be split, and each is shorter than the smaller page, so none is.
  expect(rules.every(({ cut, height }) => cut === "avoid" && height > 0 && height < 800)).toBe(true);
});

test("the runtime, the numbers, waveforms and vectors are listed with their sizes, and saved unchanged", async () => {
  await openDemo(session, "belfry-runner");
  await find(driver, "[data-testid=open-take]");
  await press(driver, "Hand over");
  await openForm(driver, "Runtime");
  await waitFor(driver, "the runtime's files", async () =>
    /moss-tap-runtime\.mjs\s+\d\d\.\d KB/.test(await textOf(driver, 'section[aria-label="Runtime"]')),
  );
  for (const [form, file, holds] of [
    ["Runtime", "moss-tap-runtime.mjs", /as loadKit/],
    ["Numbers", "belfry-runner.numbers.h", /#define MOSS_BELFRY_RUNNER_MOVES_HOP_BUFFER_FRAMES 6 /],
    ["Waveforms", "clean-climb.vcd", /\$timescale 1 ns \$end/],
    ["Timing sheet", "belfry-runner.sheet.html", /<h1>Belfry Runner<\/h1>/],
  ] as const) {
    await saveFile(driver, form, file);
    expect((await readSaved(session, file)).toString()).toMatch(holds);
  }
});

test("one form is open at a time, also after a reload; arrows go through the list", async () => {
  await openDemo(session, "belfry-runner", "hand-over");
  const open = () =>
    driver.executeScript<string[]>(
      `return [...document.querySelectorAll('[aria-label=Forms] [aria-expanded=true]')].map(item => item.textContent)`,
    );
  await expect.poll(open).toEqual(["All in one"]);
  await openForm(driver, "Timing sheet");
  await driver.actions().sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER).perform();
  await expect.poll(open).toEqual(["Numbers"]);
  await find(driver, `[aria-label="Save file belfry-runner.numbers.csv"]`);
  await driver.actions().sendKeys(Key.END).perform();
  await driver.navigate().refresh();
  await expect.poll(open).toEqual(["Numbers"]);
  await press(driver, "Numbers");
  await expect.poll(open).toEqual([]);
});
