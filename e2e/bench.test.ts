import { Key } from "selenium-webdriver";
import { expect, test } from "vitest";
import { choose, find, openRule, press, textOf, typeOver, waitFor, openNewKit } from "./browser";
import { useSession } from "./session";

const session = useSession();

const type = (label: string, value: string) => typeOver(session.driver, label, value);

async function valueOf(label: string): Promise<string> {
  return (await (await find(session.driver, `input[aria-label^="${label}"]`)).getAttribute("value")) ?? "";
}

async function begin(...goals: readonly string[]): Promise<void> {
  const { driver } = session;
  await openNewKit(session);
  for (const goal of goals) await press(driver, goal);
  await press(driver, goals.length === 1 ? "Build it, and play" : `Build these ${goals.length}, and play`);
  await find(driver, "[data-testid=stage]");
}

test("a chain from an empty shelf: one more move by a click, its timeline pulled, its window tried by the rules, its id set", async () => {
  const { driver } = session;
  await begin("A chain of attacks");
  await openRule(driver, "Third blow");
  await press(driver, "One more after it");
  await find(driver, 'input[aria-label="Id of After Third blow"]');
  await type("Id of After Third blow", "finisher");
  await waitFor(driver, "the id in the address", async () =>
    decodeURIComponent(await driver.getCurrentUrl()).includes("move:finisher"),
  );
  await openRule(driver, "Second blow");
  const chain = () => textOf(driver, "[data-testid=chain-map]");
  await waitFor(driver, "the chain", async () =>
    /After First blow, Second blow: pressed from \d+f/.test(await chain()),
  );
  const before = await chain();
  const grip = await find(driver, '[aria-label="Second blow: startup on the map"]');
  await grip.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await waitFor(driver, "the sentence", async () => (await valueOf("startup")) === "8f");
  await expect.poll(() => textOf(driver, "[data-testid=timeline-map]")).toContain("Busy for 26f");
  await press(driver, "Undo");
  await press(driver, "Undo");
  await waitFor(driver, "the startup of before", async () => (await valueOf("startup")) === "6f");
  await waitFor(driver, "the chain of before", async () => (await chain()) === before);
  await expect.poll(() => textOf(driver, "[data-testid=rule-tally]")).toMatch(/performed/);
});

test("the table of moves: edited in place, sorted, searched; the advantage follows the recovery", async () => {
  const { driver } = session;
  await begin("A chain of attacks", "Tap and hold");
  await press(driver, "Shape");
  await press(driver, "All moves as a table");
  /** Returns the cells of a move's row. */
  const row = (name: string) =>
    driver.executeScript<string[]>(
      `const found = [...document.querySelectorAll("[data-testid=moves-table] tbody tr")].find(item => item.textContent.startsWith(arguments[0]));
       return found ? [...found.cells].map(cell => cell.textContent) : [];`,
      name,
    );
  const onHit = async () => Number((await row("Quick toll"))[5]?.replace("−", "-").replace("f", ""));
  await waitFor(
    driver,
    "who can act first",
    async () => (await onHit()) !== 0 && !Number.isNaN(await onHit()),
  );
  const before = await onHit();
  await type("recovery of Quick toll", "15f");
  await waitFor(driver, "five frames less", async () => (await onHit()) === before - 5);
  const search = await find(driver, 'input[aria-label="Find a move"]');
  await search.sendKeys("toll");
  await waitFor(driver, "only tolls", async () => (await row("First blow")).length === 0);
});

test("a scripted player plays its lines into a take", async () => {
  const { driver } = session;
  await begin("A jump");
  await press(driver, "Script an input");
  await press(driver, "… and one more line");
  await press(driver, "Run the script");
  await waitFor(driver, "the take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Scripted input"),
  );
  await press(driver, "As table");
  await waitFor(
    driver,
    "jumps by coyote at the edges",
    async () =>
      ((await textOf(driver, "[data-testid=tape-table]")).match(/Jump performed by coyote/g) ?? []).length >
      1,
  );
});

test("a change of rate has a preview: frames or time kept, and its effect on the takes", async () => {
  const { driver } = session;
  await begin("A jump");
  await press(driver, "60 frames a second");
  await type("frames a second", "120");
  const rateChange = () => textOf(driver, "[data-testid=rate-change]");
  await expect.poll(rateChange).toMatch(/keep their time: \d+f, \d+ ms, becomes \d+f/);
  await choose(driver, "What lengths in frames keep", "keep their frames");
  await waitFor(driver, "the other way", async () => /will last/.test(await rateChange()));
  await choose(driver, "What lengths in frames keep", "keep their time");
  await press(driver, "Change to 120");
  await openRule(driver, "Jump");
  await waitFor(driver, "twice the frames", async () => (await valueOf("buffer")) === "12f");
  await press(driver, "Undo");
  await waitFor(driver, "as before", async () => (await valueOf("buffer")) === "6f");
});
