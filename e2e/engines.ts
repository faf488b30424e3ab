import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { performance } from "node:perf_hooks";
import type { Kit, Take } from "#core";
import { openChromium, openFirefox, type BidiBrowser } from "./bidi";
import { startApp } from "./browser";

/**
 * One walk through the application in two engines, with the times of its steps: a kit from a goal, a take recorded
 * with real keys, a window pulled, a check, a file, a reload. Usage: `npm run engines`. Exits with 1 if a step fails.
 */
const PATIENCE_MS = 30_000;
const KEYS = { leap: " ", escape: "\uE00C" };

/** A page that is driven by what it shows. */
async function openPage(browser: BidiBrowser, address: string) {
  const { contexts } = (await browser.send("browsingContext.getTree", {})) as {
    contexts: { context: string }[];
  };
  const { context } = contexts[0]!;
  await browser.send("session.subscribe", { events: ["log.entryAdded"] });
  await browser.send("browsingContext.setViewport", { context, viewport: { width: 1280, height: 800 } });
  const evaluate = async <T>(body: string): Promise<T> => {
    const answer = (await browser.send("script.evaluate", {
      expression: `(async () => JSON.stringify(await (async () => { ${body} })()) ?? "null")()`,
      target: { context },
      awaitPromise: true,
    })) as { type: string; result?: { value: string }; exceptionDetails?: { text: string } };
    if (answer.type !== "success") throw new Error(answer.exceptionDetails?.text);
    return JSON.parse(answer.result!.value) as T;
  };
  const waitFor = async <T>(what: string, body: string): Promise<NonNullable<T>> => {
    for (const until = performance.now() + PATIENCE_MS; performance.now() < until;) {
      const found = await evaluate<T | null>(body).catch(() => null);
      if (found) return found;
      await new Promise(resolve => setTimeout(resolve, 20));
    }
    throw new Error(
      `never came: ${what}; the page shows ${await evaluate<string>("return document.body.innerText")}`,
    );
  };
  /** Returns the middle of an element that is shown, by an XPath. */
  const placeOf = (where: string) =>
    waitFor<{ x: number; y: number }>(
      where,
      `const found = document.evaluate(${JSON.stringify(where)}, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE).singleNodeValue;
       if (!found?.checkVisibility({ opacityProperty: true, visibilityProperty: true }) || found.disabled) return null;
       found.scrollIntoView({ block: "nearest", inline: "nearest" });
       const { x, y, width, height } = found.getBoundingClientRect();
       return { x: Math.round(x + width / 2), y: Math.round(y + height / 2) };`,
    );
  const act = (actions: object) => browser.send("input.performActions", { context, actions: [actions] });
  const point = (actions: readonly object[]) => act({ type: "pointer", id: "mouse", actions });
  const click = async (where: string) => {
    const { x, y } = await placeOf(where);
    await point([
      { type: "pointerMove", x, y },
      { type: "pointerDown", button: 0 },
      { type: "pointerUp", button: 0 },
    ]);
  };
  return {
    waitFor,
    click,
    press: (words: string) =>
      click(`//*[self::button or self::a][normalize-space(.)="${words}" or @aria-label="${words}"]`),
    /** Pulls an element by some pixels to the right. */
    async pull(where: string, px: number) {
      const { x, y } = await placeOf(where);
      await point([
        { type: "pointerMove", x, y },
        { type: "pointerDown", button: 0 },
        { type: "pointerMove", x: x + Math.round(px / 2), y, duration: 50 },
        { type: "pointerMove", x: x + px, y, duration: 50 },
        { type: "pointerUp", button: 0 },
      ]);
    },
    key: (value: string, ms: number) =>
      act({
        type: "key",
        id: "keys",
        actions: [
          { type: "keyDown", value },
          { type: "pause", duration: ms },
          { type: "keyUp", value },
        ],
      }),
    open: (path: string) =>
      browser.send("browsingContext.navigate", { context, url: `${address}${path}`, wait: "complete" }),
    reload: () => browser.send("browsingContext.reload", { context, wait: "complete" }),
  };
}

/** A script that reads the stored kit. */
const STORED = `const open = indexedDB.open("moss-tap");
  const db = await new Promise(resolve => (open.onsuccess = () => resolve(open.result)));
  const get = db.transaction("kits").objectStore("kits").getAll();
  const [record] = await new Promise(resolve => (get.onsuccess = () => resolve(get.result)));
  db.close();
  const kit = record?.kit;`;

/** Walks through the application; returns the times of its steps in ms. */
async function walk(browser: BidiBrowser, address: string): Promise<Map<string, number>> {
  const page = await openPage(browser, address);
  const times = new Map<string, number>();
  const timed = async (name: string, run: () => Promise<unknown>) => {
    const began = performance.now();
    await run();
    times.set(name, performance.now() - began);
  };
  await timed("the shelf", async () => {
    await page.open("/");
    await page.waitFor("demos", `return Boolean(document.querySelector('ul[aria-label="Demos"]'))`);
  });
  await page.press("New kit");
  await page.press("A jump");
  await timed("a kit from a goal", async () => {
    await page.press("Build it, and play");
    await page.waitFor("the stage", `return Boolean(document.querySelector("[data-testid=stage]"))`);
  });
  await page.press("Record a take");
  const frame = `return Number(/(\\d+)f/.exec(document.querySelector("[data-testid=live-frame]")?.textContent)?.[1])`;
  await page.waitFor("frames", `${frame} > 5`);
  await timed("a press of 200 ms", () => page.key(KEYS.leap, 200));
  await page.waitFor("frames", `${frame} > 60`);
  await page.key(KEYS.escape, 10);
  await timed("the take on the tape", () =>
    page.waitFor("the take", `return Boolean(document.querySelector("[data-testid=open-take]"))`),
  );
  await page.press("Shape");
  await page.click('//nav[@aria-label="Rules"]//a[b="Jump"]');
  const before = await page.waitFor<Kit>("the kit", `${STORED} return kit`);
  await timed("a window pulled, and stored", async () => {
    await page.pull('(//*[@role="slider" and contains(@aria-label, "coyote")])[1]', 40);
    await page.waitFor(
      "a wider window",
      `${STORED} return JSON.stringify(kit.moves) !== ${JSON.stringify(JSON.stringify(before.moves))}`,
    );
  });
  for (const view of ["Wire", "Play", "Tune", "Prove"])
    await timed(view, async () => {
      await page.press(view);
      await page.waitFor(
        view,
        `return document.querySelector('a[aria-current=page]')?.textContent === "${view}"`,
      );
    });
  await timed("a check", async () => {
    await page.press("Keep the open take as it is");
    await page.waitFor("its result", `return /1 of 1/.test(document.body.innerText)`);
  });
  await page.press("Hand over");
  const { id } = before;
  await page.press("Documents");
  const fileOf = async <T>(name: string): Promise<T> => {
    await page.press(`Save file ${name}`);
    const path = join(browser.downloads, name);
    for (const until = Date.now() + PATIENCE_MS; Date.now() < until;) {
      try {
        // An engine may show a file before it is written.
        return JSON.parse(readFileSync(path, "utf8")) as T;
      } catch {
        await new Promise(resolve => setTimeout(resolve, 20));
      }
    }
    throw new Error(`no ${name} among ${readdirSync(browser.downloads).join(" ")}`);
  };
  await timed("a file", async () => {
    const kit = await fileOf<Kit>("jump.kit.json");
    if (kit.id !== id) throw new Error("another kit was saved");
  });
  const { lanes, rate } = await fileOf<Take>("take-3.take.json");
  const [[from] = [NaN], [to] = [NaN]] = lanes.leap ?? [];
  times.set("length of that press on its take", ((to - from) * 1000) / rate);
  await timed("a reload", async () => {
    await page.reload();
    await page.waitFor("the kit", `return /1 of 1/.test(document.body.innerText)`);
  });
  return times;
}

if (!existsSync("/usr/bin/firefox-esr")) {
  const installed =
    process.getuid?.() === 0 &&
    spawnSync("apt-get", ["install", "-y", "--no-install-recommends", "firefox-esr"]);
  if (!installed || installed.status !== 0) {
    console.error("The second engine needs Firefox: apt-get install firefox-esr");
    process.exit(2);
  }
}
const app = await startApp();
const columns = [];
for (const [name, open] of [
  ["Chromium", openChromium],
  ["Firefox", openFirefox],
] as const) {
  const browser = await open();
  try {
    columns.push({ name, times: await walk(browser, app.address), errors: browser.errors });
  } catch (error) {
    console.error(`${name}: ${error instanceof Error ? error.message : String(error)}`);
    process.exitCode = 1;
  } finally {
    await browser.close();
  }
}
app.stop();
console.log(`${"".padEnd(36)}${columns.map(({ name }) => name.padStart(12)).join("")}`);
for (const step of columns[0]?.times.keys() ?? [])
  console.log(
    `${step.padEnd(36)}${columns.map(({ times }) => `${times.get(step)?.toFixed(0) ?? "?"} ms`.padStart(12)).join("")}`,
  );
for (const { name, errors } of columns)
  for (const error of errors) {
    console.log(`${name}, an error on the console: ${error}`);
    process.exitCode = 1;
  }
