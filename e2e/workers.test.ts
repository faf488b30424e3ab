import { writeFileSync } from "node:fs";
import { join } from "node:path";
import type { WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import { find, openDemo, openForm, press, textOf } from "./browser";
import { runFirst } from "./tabPage";
import { useSession } from "./session";

const session = useSession();
let driver: WebDriver;

beforeEach(() => {
  driver = session.driver;
});

/** Each way a worker can fail, as the body of `(Real, ...given) => worker`. */
const WAYS = {
  "cannot be started": `throw new DOMException("no workers here", "SecurityError")`,
  "has no script": `return new Real("/assets/nothing.js", given[1])`,
  "breaks in its script": `const worker = new Real(...given);
    setTimeout(() => worker.dispatchEvent(new ErrorEvent("error", { message: "it broke" })), 5);
    return worker;`,
  "answers nothing": `const worker = new Real(...given);
    worker.postMessage = () => undefined;
    return worker;`,
  "falls silent after its greeting": `const worker = new Real(...given);
    const post = worker.postMessage.bind(worker);
    let left = 1;
    worker.postMessage = (...message) => left-- > 0 && post(...message);
    return worker;`,
  "answers what cannot be read": `const worker = new Real(...given);
    worker.postMessage = () => setTimeout(() => worker.dispatchEvent(new MessageEvent("messageerror")), 5);
    return worker;`,
  "is ended by the browser": `const worker = new Real(...given);
    setTimeout(() => worker.terminate(), 5);
    return worker;`,
};

/** Waits of more than a second last a twentieth of it: a silent worker is given up after twelve. */
const failing = (way: string) => `
  const { Worker: Real, setTimeout: later } = window;
  window.setTimeout = (run, ms, ...rest) => later(run, ms > 1000 ? ms / 20 : ms, ...rest);
  window.Worker = function (...given) { ${way} };`;

test.each(Object.entries(WAYS))(
  "a worker that %s: checks, a study, an export and an import report it and show no figure",
  async (_, way) => {
    await runFirst(driver, failing(way));
    await openDemo(session, "belfry-runner", "prove");
    await find(driver, `//header//*[contains(., "not judged")]`);
    expect(await textOf(driver, "body")).not.toMatch(/\d of \d+ hold/);
    await press(driver, "Tune");
    await find(driver, `//main//*[contains(text(), "could not be worked out")]`);
    await press(driver, "Hand over");
    await openForm(driver, "All in one");
    await press(driver, "Create the zip");
    await find(driver, `//section[@aria-label="All in one"]//*[@role="alert"]`);
    const large = join(session.downloads, "large.take.json");
    writeFileSync(large, JSON.stringify({ notes: "large ".repeat(400_000) }));
    await driver.findElement({ css: "[data-testid=take-in-picker]" }).sendKeys(large);
    await find(driver, `//section[@aria-label="Take in"]//*[contains(., "large.take.json")]`);
    expect(await textOf(driver, "[aria-label='Take in']")).toMatch(/could not be read/);
    await driver.manage().logs().get("browser");
  },
);
