import { readFileSync } from "node:fs";
import { By, Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import {
  choose,
  clickOn,
  describeCanvas,
  find,
  press,
  textOf,
  typeOver,
  waitFor,
  openDemo as openDemoKit,
  openKit,
  openNewKit,
  openShelf,
  chooseRule,
  openRule,
} from "./browser";
import { useSession } from "./session";
import { runFirst } from "./tabPage";

const session = useSession();
let driver: WebDriver;

beforeEach(async () => {
  driver = session.driver;
});

async function openDemo(demo: string): Promise<void> {
  await openDemoKit(session, demo);
  await find(driver, "[data-testid=stage]");
}

const frame = async () => Number(/(\d+)f/.exec(await textOf(driver, "[data-testid=live-frame]"))?.[1]);
const waitForFrame = (wanted: number) =>
  waitFor(driver, `frame ${wanted}`, async () => (await frame()) >= wanted);
const tickerText = () => textOf(driver, "[data-testid=ticker]").catch(() => "");

/** The time limit for repeated presses: fewer fit in a second on a busy machine. */
const PRESSING_MS = 45_000;

/**
 * Presses a key repeatedly until every wanted event is listed. The intervals are uneven on purpose: even
 * presses can fall on the same frames of every jump.
 */
async function pressUntil(key: string, wanted: readonly RegExp[]): Promise<void> {
  const seen = new Set<RegExp>();
  let turn = 0;
  await waitFor(
    driver,
    wanted.join(", "),
    async () => {
      const hands = driver.actions();
      for (let k = 0; k < 4; k++)
        hands
          .keyDown(key)
          .pause(40)
          .keyUp(key)
          .pause(40 + ((turn++ * 37) % 170));
      await hands.perform();
      const text = await tickerText();
      for (const pattern of wanted) if (pattern.test(text)) seen.add(pattern);
      return seen.size === wanted.length;
    },
    PRESSING_MS,
  );
}

test("the runner: a hop is performed, one is saved, one is lost; the session is kept and replayed with its arcs", async () => {
  await openDemo("belfry-runner");
  await press(driver, "Start listening");
  await waitForFrame(5);
  await pressUntil(Key.SPACE, [/Hop performed(?! by)/, /Hop performed by buffer/, /Hop lost: /]);
  await press(driver, "Keep what just happened");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await waitFor(driver, "the kept take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Take 5"),
  );
  await press(driver, "As table");
  // Newest first: it may have taken many presses, and a table shows two hundred lines at a time.
  await clickOn(driver, "//table//th[1]//button");
  await expect.poll(() => textOf(driver, "[data-testid=tape-table]")).toContain("Hop performed by buffer");
  await press(driver, "As tape");
  await press(driver, "Replay");
  await waitFor(driver, "the replay", async () => (await describeCanvas(driver, "stage")).frame > 20);
});

test("freeze, step and slow motion: frames stop, advance one by one, and the take has the speed", async () => {
  await openDemo("belfry-runner");
  await press(driver, "Record a take");
  await waitForFrame(10);
  await press(driver, "Freeze");
  const stood = await waitFor(driver, "a frozen frame", async () => {
    const before = await frame();
    await driver.executeAsyncScript("setTimeout(arguments[0], 120)");
    return (await frame()) === before && before;
  });
  await press(driver, "+1f");
  await waitForFrame(stood + 1);
  await expect.poll(frame).toBe(stood + 1);
  await clickOn(driver, '[aria-label^="Speed of the game"]');
  await press(driver, "25 %");
  await press(driver, "Go on");
  await waitForFrame(stood + 20);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await waitFor(driver, "the lane of speed", async () =>
    (await describeCanvas(driver, "tape")).rows.includes("Speed"),
  );
});

test("a key held while buttons are clicked and bench keys are pressed stays held until its release", async () => {
  await openDemo("belfry-runner");
  await press(driver, "Record a take");
  await waitForFrame(10);
  await driver.actions().keyDown(Key.ARROW_RIGHT).perform();
  await waitForFrame((await frame()) + 10);
  await press(driver, "Freeze");
  await find(driver, "//button[starts-with(., 'Go on')]");
  const stood = await frame();
  for (let k = 1; k <= 3; k++) await driver.actions().sendKeys(Key.F4).perform();
  await waitForFrame(stood + 3);
  await driver.actions().sendKeys(Key.F8).perform();
  await find(driver, '[aria-label="Speed of the game: 75 %"]');
  await driver.actions().sendKeys(Key.F2).perform();
  await waitForFrame(stood + 30);
  await press(driver, "arcs");
  await waitForFrame((await frame()) + 10);
  await driver.actions().keyUp(Key.ARROW_RIGHT).perform();
  await waitForFrame((await frame()) + 5);
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await press(driver, "As table");
  const edges = async () =>
    (await textOf(driver, "[data-testid=tape-table]")).match(/Right goes down|Right comes up/g) ?? [];
  await expect.poll(edges).toEqual(["Right goes down", "Right comes up"]);
});

test("the duel: blows land, one is buffered, one is lost", async () => {
  await openDemo("clapper-duel");
  await press(driver, "Start listening");
  await waitForFrame(5);
  await pressUntil("j", [/Chime performed/, /Toll performed by buffer/, /lost: /]);
});

test("the ropes: a prompt is answered, the next is held, and one runs out; its button is named for the device in hand", async () => {
  await openDemo("rope-catch");
  const ease = await find(driver, 'input[aria-label="ease"]');
  await ease.sendKeys(Key.chord(Key.CONTROL, "a"), "4", Key.ENTER);
  await press(driver, "Start listening");
  await waitForFrame(80);
  await driver.actions().keyDown("d").keyUp("d").perform();
  await waitFor(driver, "an answer", async () => /Catch it (ok|fair|clean)/.test(await tickerText()));
  await waitForFrame((await frame()) + 25);
  await driver.actions().keyDown("s").perform();
  await waitFor(driver, "held steady", async () => /Hold it steady ok/.test(await tickerText()));
  await driver.actions().keyUp("s").perform();
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await ease.sendKeys(Key.chord(Key.CONTROL, "a"), "0.5", Key.ENTER);
  await press(driver, "Start listening");
  await waitFor(driver, "one that ran out", async () => /Catch it failed: too late/.test(await tickerText()));
});

test("a new user's first minute: choosing goals, and the first performed press", async () => {
  await openShelf(session);
  await press(driver, "New kit");
  await press(driver, "A jump");
  await press(driver, "A chain of attacks");
  await press(driver, "Build these 2, and play");
  await find(driver, "[data-testid=stage]");
  await waitFor(driver, "a tape that is not empty", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Played by a scripted hand"),
  );
  await press(driver, "Start listening");
  await waitForFrame(3);
  await pressUntil(Key.SPACE, [/Jump performed/]);
  await pressUntil("j", [/First blow performed/]);
});

test("a kit without a stage gets one, and a move gets effects", async () => {
  await openNewKit(session);
  await press(driver, "Begin with an empty kit");
  await press(driver, "Add a control");
  await press(driver, "Bind by pressing: Control 1");
  await driver.actions().sendKeys(Key.SPACE).perform();
  await waitFor(driver, "the binding", async () =>
    (await textOf(driver, 'section[aria-label="Controls"]')).includes("Space"),
  );
  await press(driver, "Play");
  await press(driver, "a runner on beams");
  await find(driver, "[data-testid=stage]");
  await press(driver, "Shape");
  await press(driver, "New rule");
  await press(driver, "Allow a late jump");
  const leap = await find(driver, 'input[aria-label="leap of the effect"]');
  await leap.sendKeys(Key.chord(Key.CONTROL, "a"), "12", Key.ENTER);
  // A second effect of the same move, taken away again.
  await choose(driver, "one more effect on the stage", "steps");
  const effect = () => textOf(driver, "[data-testid=effect]");
  await expect.poll(effect).toMatch(/On the stage it leaps at\s+tiles a second; and steps\s+tiles\./);
  await choose(driver, "effect 2 on the stage", "nothing more");
  await expect.poll(effect).toMatch(/On the stage it leaps at\s+tiles a second\./);
  await press(driver, "Play");
  await press(driver, "… a moving beam");
  await find(driver, 'input[aria-label="way across of moving beam 1"]');
  await press(driver, "Start listening");
  await waitForFrame(3);
  await pressUntil(Key.SPACE, [/Jump performed/]);
  await expect.poll(() => textOf(driver, "[data-testid=jump-facts]")).toMatch(/full\s+f\s+1\.2/);
});

test("a scripted player leaps at every edge, late ones within the coyote; the numbers of a jump change its figures and its fate", async () => {
  await openDemo("belfry-runner");
  await choose(driver, "Scripted hands", "3f late");
  await waitFor(driver, "the scripted take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Scripted, 3f late"),
  );
  await clickOn(driver, "canvas[data-testid=tape]");
  await driver.actions().sendKeys(Key.END).perform();
  await press(driver, "Keep this arc");
  await press(driver, "As table");
  const table = () => textOf(driver, "[data-testid=tape-table]");
  const hops = (await table()).split("\n").filter(line => line.includes("Hop performed by coyote")).length;
  expect(hops).toBeGreaterThan(1);
  const arcs = () => textOf(driver, "[data-testid=arc-list]");
  await expect.poll(arcs).toMatch(/Hop in Scripted, 3f late.*\n.*3\.31 tiles, \d+f.*\nnow the same/);
  const full = async () =>
    Number(/full\s+f\s+([\d.]+)/.exec(await textOf(driver, "[data-testid=jump-facts]"))![1]);
  const before = await full();
  const field = await find(driver, 'input[aria-label="launch speed"]');
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), "10", Key.ENTER);
  await waitFor(driver, "a lower jump", async () => (await full()) < before / 2);
  await waitFor(driver, "what it lost", async () => /now −[12]\.\d\d high, −\d+f/.test(await arcs()));
  await waitFor(
    driver,
    "another run of the same hands",
    async () =>
      (await table()).split("\n").filter(line => line.includes("Hop performed by coyote")).length !== hops,
  );
});

test("the level is edited by pointer and by keys, and every take is run on it at once; a stroke is one step of undo", async () => {
  await openDemo("belfry-runner");
  await clickOn(driver, '//summary[.="The level as text"]');
  const level = async () =>
    (await (await find(driver, '[aria-label="The level as rows of text"]')).getAttribute("value"))!.split(
      "\n",
    );
  const before = await level();
  await press(driver, "Draw the level");
  await find(driver, '[data-testid=stage][role="application"]');
  const stage = await find(driver, "[data-testid=stage]");
  const at = (x: number) => ({ origin: stage, x, y: 0 });
  await driver.actions().move(at(-100)).press().move(at(-40)).move(at(100)).release().perform();
  const drawn = await waitFor(driver, "a beam more", async () => {
    const now = await level();
    return now.join() !== before.join() && now;
  });
  const changed = drawn.filter((row, r) => row !== before[r]);
  expect(changed).toHaveLength(1);
  expect(changed[0]).toMatch(/#{10}/);
  await waitFor(driver, "the take run on it", async () =>
    (await textOf(driver, "section[aria-label=Tape]")).includes("1 press lost"),
  );
  await press(driver, "Undo");
  await waitFor(driver, "the level as it was", async () => (await level()).join() === before.join());
  await stage.sendKeys(
    ...Array<string>(60).fill(Key.ARROW_LEFT),
    ...Array<string>(20).fill(Key.ARROW_UP),
    " ",
  );
  await waitFor(driver, "a beam in the corner", async () => (await level())[0]![0] === "#");
  await expect.poll(() => stage.getAttribute("aria-label")).toContain("Tile 1 across, 11 up: a beam");
  await stage.sendKeys(Key.ESCAPE);
  await find(driver, '[data-testid=stage][role="img"]');
  await choose(driver, "gate at a wall", "a new gate, Wall");
  await waitFor(driver, "the gate's row", async () =>
    (await describeCanvas(driver, "tape")).rows.includes("Wall"),
  );
});

test("the opponent's script is edited as sentences and changes the bout; a replay lists the recognised events", async () => {
  await openDemo("clapper-duel");
  await (await find(driver, "[data-testid=tape]")).sendKeys(Key.END);
  const taken = async () => (await tickerText()).split("\n");
  await waitFor(driver, "the end of the bout", async () => (await taken()).length > 5);
  const before = await tickerText();
  await clickOn(driver, `[data-testid=ticker] li:last-child button`);
  await waitFor(driver, "an earlier frame", async () => (await tickerText()) !== before);
  const first = await find(driver, '[aria-label^="when it does its 1."]');
  await expect.poll(() => first.getAttribute("value")).toBe("90f");
  await choose(driver, "what it does 1.", "guards");
  await find(driver, '[aria-label^="how long it does its 1."]');
  await press(driver, "… and does one thing more");
  await find(driver, '[aria-label^="when it does its 5."]');
  await press(driver, "× Take out what it does 5.");
  await waitFor(driver, "four lines", async () => {
    const lines = await driver.findElements({ css: "[data-testid=duel-script] li" });
    return lines.length === 4;
  });
  await press(driver, "Remove the stage");
  await press(driver, "Put it back");
  await find(driver, "[data-testid=duel-script]");
});

test("a take with gates of its own has a note on the stage, until another is opened or a key is played", async () => {
  const read = (name: string) =>
    JSON.parse(readFileSync(`demo/belfry-runner/${name}.json`, "utf8")) as unknown;
  const take = read("1-clean-climb") as Take;
  const own: Take = { ...take, id: "own", name: "Own gates", stage: "none", gates: { footing: [[0, 1]] } };
  await openKit(session, read("kit") as Kit, [own, take]);
  const note = By.xpath(`//*[@role="status"][contains(., "the stage takes no part in it")]`);
  const isNoted = async () => (await driver.findElements(note)).length > 0;
  await press(driver, `Open ${take.name}`);
  await expect.poll(() => textOf(driver, "[data-testid=open-take]")).toContain(take.name);
  expect(await isNoted()).toBe(false);
  await press(driver, `Open ${own.name}`);
  await expect.poll(isNoted).toBe(true);
  await press(driver, "Start listening");
  await expect.poll(isNoted).toBe(false);
});

test("a rule without content in the open take names a take that has some", async () => {
  await openDemo("belfry-runner");
  await choose(driver, "Take: ", "A press eaten");
  await press(driver, "Shape");
  await chooseRule(driver, "Tuck");
  await expect.poll(() => textOf(driver, "[data-testid=quiet]")).toContain("Nothing of Tuck in this take.");
  await press(driver, "Open Clean climb");
  await waitFor(driver, "the other take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Clean climb"),
  );
  await waitFor(
    driver,
    "no note",
    async () => (await driver.findElements({ css: "[data-testid=quiet]" })).length === 0,
  );
});

test("a rule that others depend on is deleted: every view still works, the faults are listed, undo restores it", async () => {
  await openDemo("belfry-runner");
  const kept = async () => (await describeCanvas(driver, "tape")).rows.join("|");
  const before = await kept();
  await press(driver, "Shape");
  await chooseRule(driver, "Leap press");
  await press(driver, "Delete this rule");
  await chooseRule(driver, "Hop");
  await expect.poll(() => textOf(driver, "main [role=alert]")).toContain("leap-press");
  await press(driver, "As table");
  await find(driver, "[data-testid=tape-table]");
  await press(driver, "As tape");
  await press(driver, "Wire");
  await press(driver, "Play");
  await expect
    .poll(() => textOf(driver, "main [role=alert]"))
    .toContain("Nothing can be played until this is mended");
  await expect.poll(kept).toBe(before);
  await press(driver, "Undo");
  await waitFor(
    driver,
    "nothing to mend",
    async () => (await driver.findElements({ css: "main [role=alert]" })).length === 0,
  );
});

test("numbers are dragged, typed and undone with the body in the air; it goes on from where it is, and from a marked place", async () => {
  await openDemo("belfry-runner");
  await press(driver, "Start listening");
  const fieldOf = (label: string) => find(driver, `input[aria-label^="${label}"]`);
  const valueOf = async (label: string) => (await fieldOf(label)).getAttribute("value");
  await driver.actions().keyDown("d").perform();
  await waitForFrame(20);
  await driver.actions().sendKeys(Key.F6).perform();
  const marked = await frame();

  // A drag of a number leaves the keys with the game.
  const gravity = await fieldOf("gravity rising");
  await driver
    .actions()
    .move({ origin: gravity })
    .press()
    .move({ origin: gravity, x: 40 })
    .release()
    .perform();
  expect(await valueOf("gravity rising")).not.toBe("52");
  expect(await frame()).toBeGreaterThanOrEqual(marked);
  await driver.actions().keyUp("d").perform();

  // A click opens it for typing: the keys are the field's until Enter.
  await (await fieldOf("launch speed")).click();
  await find(driver, '//header//button[contains(., "Typing")]');
  await driver.actions().sendKeys("1", "4").perform();
  await driver.actions().sendKeys(Key.ENTER).perform();
  await find(driver, '//header//button[contains(., "Listening")]');
  expect(await valueOf("launch speed")).toBe("14");
  const before = await frame();
  expect(before).toBeGreaterThan(marked);

  await press(driver, "Undo");
  expect(await valueOf("launch speed")).toBe("19");
  expect(await frame()).toBeGreaterThanOrEqual(before);
  await driver.actions().sendKeys(Key.F7).perform();
  expect(await frame()).toBeLessThan(before);
  await press(driver, "Keep what just happened");
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await find(driver, "//button[normalize-space(.)='Start listening']");

  // Wanted figures set the numbers: four tiles in 24 frames are 50 tiles a second squared.
  await typeOver(driver, "wanted height", "4");
  await typeOver(driver, "wanted frames to the top", "24");
  await expect.poll(() => valueOf("gravity rising")).toMatch(/^50(\.00\d)?$/);
  await expect.poll(() => valueOf("launch speed")).toMatch(/^20\.41/);
  await press(driver, "… hanging around the top");
  await choose(driver, "gate of sliding", "a new gate, Wall");
  await typeOver(driver, "greatest fall while sliding", "3");
  await expect
    .poll(() => textOf(driver, "[data-testid=fall-words]"))
    .toMatch(/While Wall is open it falls at most at/);
});

test("all listed takes get a player at once, as one step of undo", async () => {
  await openDemo("belfry-runner");
  await (await find(driver, 'input[aria-label="Player of all listed takes"]')).sendKeys("Ines", Key.ENTER);
  const byInes = async () => ((await textOf(driver, '[aria-label="Takes"]')).match(/by Ines/g) ?? []).length;
  // Three in a line, the open one in its field.
  await expect.poll(byInes).toBe(3);
  expect(await (await find(driver, 'input[aria-label^="Player of Clean climb"]')).getAttribute("value")).toBe(
    "Ines",
  );
  await press(driver, "Undo");
  await expect.poll(byInes).toBe(0);
});

/** Steps every number beside the stage by its arrow key; returns how many there are, and those that stay as they were. */
const STEP_NUMBERS = `const done = arguments[0];
  const list = () => [...document.querySelectorAll('section[aria-label="Numbers"] input[data-dragged]')];
  const picture = () => new Promise(requestAnimationFrame);
  const stuck = [];
  const stepAll = async () => {
    for (let k = 0; k < list().length; k++) {
      const input = list()[k];
      const before = input.value;
      const isStepped = () => input.value !== before || input.ariaInvalid === "true";
      input.focus();
      input.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowUp", bubbles: true, cancelable: true }));
      for (let pictures = 0; pictures < 20 && !isStepped(); pictures++) await picture();
      if (!isStepped()) stuck.push(input.ariaLabel);
    }
    done({ count: list().length, stuck });
  };
  void stepAll();`;

test.each(["belfry-runner", "clapper-duel", "rope-catch"])(
  "every number beside the stage of %s is stepped by a key",
  async demo => {
    await openDemo(demo);
    await find(driver, 'section[aria-label="Numbers"] input');
    const found = await driver.executeAsyncScript<{ count: number; stuck: string[] }>(STEP_NUMBERS);
    expect(found.stuck).toEqual([]);
    expect(found.count).toBeGreaterThan(3);
  },
);

/** Counts what React renders, by the hook that it offers to tools. */
const COUNT_RENDERS = `window.renders = 0;
  const ignore = () => undefined;
  window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
    supportsFiber: true, renderers: new Map(), inject: () => 1, checkDCE: ignore, onCommitFiberUnmount: ignore,
    onPostCommitFiberRoot: ignore, onCommitFiberRoot: () => window.renders++,
  };`;

/** Renders the helps of the stage on every picture, as long as they are shown, and counts the pictures. */
const RENDER_ALWAYS = `window.pictures = 0;
  const switched = document.querySelector('[role=group][aria-label="Shown on the stage"] button');
  (function render() {
    if (!switched.isConnected) return;
    window.pictures++;
    switched.click();
    requestAnimationFrame(render);
  })();`;

test("a frame of play renders nothing; a view opens at once while something else renders on every frame", async () => {
  await runFirst(driver, COUNT_RENDERS);
  await openDemo("clapper-duel");
  await driver.navigate().refresh();
  await find(driver, "[data-testid=stage]");
  await press(driver, "Start listening");
  const renders = () => driver.executeScript<number>("return window.renders");
  for (const view of ["Play", "Shape"]) {
    if (view === "Shape") await openRule(driver, "Great swing");
    await waitForFrame((await frame()) + 60);
    await driver.actions().keyDown("k").perform();
    await waitForFrame((await frame()) + 10);
    const [before, from] = [await renders(), await frame()];
    await waitForFrame(from + 60);
    expect((await renders()) - before, view).toBeLessThan(20);
    await driver.actions().keyUp("k").perform();
  }
  await press(driver, "Play");
  await find(driver, "[data-testid=stage]");
  await driver.executeScript(RENDER_ALWAYS);
  await press(driver, "Shape");
  await find(driver, 'section[aria-label="The rule"]');
  expect(await driver.executeScript<number>("return window.pictures")).toBeLessThan(100);
});
