import { By, Key, type WebDriver } from "selenium-webdriver";
import { beforeEach, expect, test } from "vitest";
import { compile, evaluate, formatTrace, type Kit, type Take, type TraceEvent } from "#core";
import {
  choose as chooseWord,
  clickOn,
  find,
  keptKit as keptKitOf,
  press,
  textOf,
  typeOver,
  waitFor,
  watchMeter,
  openKit,
  chooseRule,
  openDemo,
} from "./browser";
import { useSession } from "./session";
import { runFirst } from "./tabPage";

const BARE: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "bare",
  name: "Bare",
  rate: 60,
  controls: [
    { id: "leap", name: "Leap", bindings: [["key:Space"]] },
    { id: "strike", name: "Strike", bindings: [["key:KeyJ"]] },
    { id: "guard", name: "Guard", bindings: [["key:KeyK"]] },
  ],
  patterns: [],
};

const session = useSession();
let driver: WebDriver;

beforeEach(async () => {
  driver = session.driver;
  await openKit(session, BARE, [], "shape");
  await waitFor(driver, "Shape", async () => (await textOf(driver, "main")).includes("No rule yet"));
});

const keptKit = (what: string, isIt: (kit: Kit) => boolean) => keptKitOf(driver, what, isIt);

type Lanes = Record<string, [number, number][]>;

/** Returns the trace of presses drawn as [from, to) for each control. */
function judge(
  kit: Kit,
  presses: Record<string, [number, number][]>,
  gates: Lanes = {},
): readonly TraceEvent[] {
  const lanes = Object.fromEntries(
    Object.entries(presses).map(([id, list]) => [
      id,
      list.flatMap(([from, to]): [number, number][] => [
        [from, 1],
        [to, 0],
      ]),
    ]),
  );
  const take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 300,
    lanes,
    gates,
  };
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  return formatTrace(compiled.value, evaluate(compiled.value, take as unknown as Take)).events;
}

const framesOf = (events: readonly TraceEvent[], kind: TraceEvent["kind"], id: string) =>
  events.flatMap(event => (event.kind === kind && event.id === id ? [event.f] : []));

/** Moves to an element by Tab alone. */
async function tabTo(label: string): Promise<void> {
  for (let k = 0; k < 150; k++) {
    await driver.actions().sendKeys(Key.TAB).perform();
    const name = await driver.executeScript<string>(
      "const on = document.activeElement; return (on.getAttribute('aria-label') || on.textContent || '').trim();",
    );
    if (name.startsWith(label)) return;
  }
  throw new Error(`no Tab leads to ${label}`);
}

/** Selects remove buttons that are not at the end of their own clause, at any width of the sentence. */
const CROSSES_ASTRAY = `
  const sentence = document.querySelector("[data-testid=sentence]");
  const astray = [];
  for (let width = 260; width < 900; width += 5) {
    sentence.style.width = width + "px";
    for (const cross of sentence.querySelectorAll('button[aria-label^="Take out"]')) {
      const clause = cross.closest("[data-clause]");
      const end = [...clause.getClientRects()].filter(box => box.width > 0).at(-1);
      const { left, right, top } = cross.getBoundingClientRect();
      const isAtEnd = left >= end.left - 18 && right <= end.right + 3 && top >= end.top - 12 && top < end.bottom;
      if (!isAtEnd) astray.push(width + " " + clause.textContent);
    }
  }
  sentence.style.width = "";
  return astray;`;

const keys = (...pressed: string[]) =>
  driver
    .actions()
    .sendKeys(...pressed)
    .perform();

async function startByKeys(words: string): Promise<void> {
  await tabTo("New rule");
  await keys(Key.ENTER);
  await find(driver, `//button[b="${words}"]`);
  await tabTo(words);
  await keys(Key.ENTER);
  await find(driver, "[data-testid=sentence]");
}

async function startByHand(words: string): Promise<void> {
  await press(driver, "New rule");
  await press(driver, words);
  await find(driver, "[data-testid=sentence]");
}

const choose = (label: string, words: string) => chooseWord(driver, label, words);

test("by keys alone: a hold, tried right there, its meter filling", async () => {
  await startByKeys("Hold");
  await tabTo("length of the hold");
  await keys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN);
  const kit = await keptKit(
    "the hold",
    made => made.patterns[0]?.kind === "hold" && made.patterns[0].for === "26f",
  );
  expect(
    framesOf(
      judge(kit, {
        leap: [
          [10, 50],
          [80, 105],
        ],
      }),
      "fired",
      "leap-hold",
    ),
  ).toEqual([36]);
  await press(driver, "Start listening");
  const ratiosOf = await watchMeter(driver, "leap-hold");
  await driver.actions().keyDown(Key.SPACE).perform();
  await expect.poll(async () => (await ratiosOf()).some(ratio => ratio > 0 && ratio < 1)).toBe(true);
  await driver.actions().keyUp(Key.SPACE).perform();
  await press(driver, "Keep what was tried");
  await keys(Key.ESCAPE);
  await waitFor(driver, "a kept take", async () =>
    (await textOf(driver, "[data-testid=open-take]")).includes("Take 1"),
  );
  await waitFor(driver, "its press on the map", async () =>
    (await textOf(driver, "[data-testid=press-length-map]")).includes("1 answered"),
  );
});

test("by keys alone: a jump with coyote and buffer, and a clause taken out with one key", async () => {
  await startByKeys("Allow a late jump");
  await tabTo("buffer");
  await keys(Key.ARROW_UP, Key.ARROW_UP);
  await tabTo("coyote");
  await keys(Key.ARROW_UP);
  const kit = await keptKit(
    "the jump",
    made => made.moves?.[0]?.buffer === "8f" && made.moves[0].needs?.[0]?.coyote === "6f",
  );
  const gates: Lanes = {
    footing: [
      [0, 1],
      [40, 0],
      [70, 1],
      [100, 0],
      [130, 1],
    ],
  };
  const events = judge(
    kit,
    {
      leap: [
        [45, 47],
        [62, 64],
        [107, 109],
        [121, 123],
      ],
    },
    gates,
  );
  expect(events.filter(event => event.kind === "performed").map(event => [event.f, event.by])).toEqual([
    [45, "coyote"],
    [70, "buffer"],
  ]);
  expect(framesOf(events, "lost", "jump")).toEqual([115, 129]);
  await tabTo("buffer");
  await keys(Key.DELETE);
  await keptKit("no memory", made => made.moves?.[0]?.buffer === undefined);
  await driver.actions().keyDown(Key.CONTROL).sendKeys("z").keyUp(Key.CONTROL).perform();
  await keptKit("the memory back", made => made.moves?.[0]?.buffer === "8f");
});

test("by keys alone: two buttons together, and a chain of three attacks with a buffer", async () => {
  await startByKeys("Two buttons together");
  await tabTo("spread of the presses");
  await keys(Key.ARROW_DOWN);
  let kit = await keptKit(
    "the chord",
    made => made.patterns[0]?.kind === "chord" && made.patterns[0].spread === "3f",
  );
  const together = judge(kit, {
    leap: [
      [10, 20],
      [40, 50],
    ],
    strike: [
      [13, 20],
      [44, 50],
    ],
  });
  expect(framesOf(together, "fired", "together")).toEqual([13]);
  await startByKeys("Chain of attacks");
  kit = await keptKit("the chain", made => made.moves?.length === 3);
  const events = judge(kit, {
    leap: [
      [10, 12],
      [20, 22],
      [40, 42],
    ],
  });
  expect(events.flatMap(event => (event.kind === "performed" ? [[event.id, event.f]] : []))).toEqual([
    ["first-blow", 10],
    ["second-blow", 20],
    ["third-blow", 40],
  ]);
  const early = judge(kit, {
    leap: [
      [10, 12],
      [13, 15],
    ],
  });
  expect(framesOf(early, "performed", "second-blow")).toEqual([19]);
});

test("by pointer: tap and hold on one button; a dead stretch made by dragging is closed by a button", async () => {
  await startByHand("Tap or hold");
  await find(driver, "[data-testid=press-length-map]");
  const edge = await find(driver, '[aria-label="Leap tap: longest tap on the map"]');
  await driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", edge);
  await driver
    .actions()
    .move({ origin: edge })
    .press()
    .move({ origin: edge, x: -30 })
    .move({ origin: edge, x: -70 })
    .release()
    .perform();
  const dead = await keptKit("a dead stretch", made => {
    const [tap] = made.patterns;
    return tap?.kind === "tap" && parseInt(tap.max) < 10;
  });
  const max = parseInt((dead.patterns[0] as { max: string }).max);
  expect(framesOf(judge(dead, { leap: [[10, 10 + max + 1]] }), "fired", "leap-tap")).toEqual([]);
  await press(driver, "Let Leap tap reach up to 11f");
  const kit = await keptKit("no dead stretch", made => (made.patterns[0] as { max?: string }).max === "11f");
  const events = judge(kit, {
    leap: [
      [10, 21],
      [50, 62],
    ],
  });
  expect(framesOf(events, "fired", "leap-tap")).toEqual([21]);
  expect(framesOf(events, "fired", "leap-hold")).toEqual([62]);
  await press(driver, "Undo");
  await press(driver, "Undo");
  await keptKit("one drag, one step", made => (made.patterns[0] as { max?: string }).max === "11f");
});

test("by pointer: a charge in three levels along a curve, its output read by the probe", async () => {
  await startByHand("Charge and let go");
  await press(driver, "ease out");
  let kit = await keptKit("the curve", made => (made.patterns[0] as { curve?: string }).curve === "ease-out");
  const [full] = judge(kit, { leap: [[10, 80]] }).filter(event => event.kind === "fired");
  expect(full).toMatchObject({ f: 80, level: 3, value: 100 });
  const [half] = judge(kit, { leap: [[10, 40]] }).filter(event => event.kind === "fired");
  expect(half).toMatchObject({ level: 1, ratio: 0.5 });
  expect((half as { value: number }).value).toBeCloseTo(68.4, 0);
  const handle = await find(driver, '[aria-label="Second handle of the curve"]');
  await driver
    .actions()
    .move({ origin: handle })
    .press()
    .move({ origin: handle, x: -10, y: 20 })
    .release()
    .perform();
  kit = await keptKit("a curve of its own", made =>
    /^cubic-bezier/.test((made.patterns[0] as { curve?: string }).curve ?? ""),
  );
  await (
    await find(driver, '[aria-label="Paste a CSS easing function"]')
  ).sendKeys("linear(0, 0.2 60%, 1)", Key.ENTER);
  kit = await keptKit(
    "the pasted curve",
    made => (made.patterns[0] as { curve?: string }).curve === "linear(0, 0.2 60%, 1)",
  );
  const svg = await find(driver, "[data-testid=curve-editor] svg");
  await driver.actions().move({ origin: svg, x: 19 }).perform();
  await waitFor(driver, "the probe", async () =>
    /worth\s+20/.test(await textOf(driver, "[data-testid=curve-probe]")),
  );
});

test("by pointer: a double tap that costs the single nothing, and one that does, with its price", async () => {
  await startByHand("Double tap");
  let kit = await keptKit("the double tap", made => made.patterns[0]?.kind === "taps");
  const hands = {
    leap: [
      [10, 12],
      [20, 22],
      [80, 82],
    ] as [number, number][],
  };
  expect(framesOf(judge(kit, hands), "fired", "leap-twice")).toEqual([20]);
  await choose("what it answers", "the count, once sure");
  await waitFor(driver, "the price", async () =>
    (await textOf(driver, "[data-testid=tap-ladder]")).includes("a single tap is answered 15f (250 ms) late"),
  );
  kit = await keptKit("the sure one", made => (made.patterns[0] as { answer?: string }).answer === "final");
  const sure = judge(kit, hands).flatMap(event => (event.kind === "fired" ? [[event.f, event.count]] : []));
  expect(sure).toEqual([
    [20, 2],
    [95, 1],
  ]);
});

test("by pointer: a sequence of five steps with a cancel; rules that depend on a deleted rule are listed", async () => {
  await startByHand("Motion and button");
  await clickOn(driver, '[aria-label="More parts for this rule"] [aria-expanded=false]');
  await press(driver, "… then one more step");
  await press(driver, "… and let a button cancel it");
  const kit = await keptKit("five steps", made => {
    const [sequence] = made.patterns;
    return sequence?.kind === "sequence" && sequence.steps.length === 5 && sequence.cancel?.length === 1;
  });
  const motion = { down: [[10, 16]], right: [[13, 26]], leap: [[20, 22]], strike: [[25, 27]] } as Record<
    string,
    [number, number][]
  >;
  expect(framesOf(judge(kit, motion), "fired", "quarter-turn")).toEqual([25]);
  const cancelled = judge(kit, { ...motion, guard: [[18, 19]] });
  expect(framesOf(cancelled, "fired", "quarter-turn")).toEqual([]);
  expect(cancelled).toContainEqual(expect.objectContaining({ kind: "lapsed", why: "cancelled" }));
  await expect.poll(() => driver.executeScript(CROSSES_ASTRAY)).toEqual([]);
  await press(driver, "New rule");
  await press(driver, "A move");
  await chooseRule(driver, "Quarter turn");
  await press(driver, "Delete this rule");
  await waitFor(driver, "what leans on it", async () =>
    (await textOf(driver, "[aria-label=Notices]")).includes("Rules that depend on it: Move 1"),
  );
  await press(driver, "Put it back");
  await keptKit("it back", made => made.patterns.length === 1);
});

test("a rule stays open while its id is changed and that is undone", async () => {
  await openDemo(session, "belfry-runner", "shape");
  await chooseRule(driver, "Tuck");
  await driver.executeScript(
    `const nameOf = () => document.querySelector('[aria-label="Name of this rule"]')?.value;
     window.names = new Set();
     window.watch = new MutationObserver(() => names.add(nameOf()));
     watch.observe(document.body, { childList: true, subtree: true });`,
  );
  const shown = () => driver.executeScript<string[]>("watch.disconnect(); return [...names]");
  await typeOver(driver, "Id of Tuck", "curl");
  await keptKit("another id", kit => kit.patterns.some(({ id }) => id === "curl"));
  await waitFor(driver, "the address to follow", async () =>
    (await driver.getCurrentUrl()).endsWith("rule=pattern%3Acurl"),
  );
  await press(driver, "Undo");
  await keptKit("the id from before", kit => kit.patterns.some(({ id }) => id === "tuck"));
  await find(driver, '[data-testid=sentence] input[aria-label="Name of this rule"]');
  expect(await shown()).toEqual(["Tuck"]);
});

test("rules are copied by key and from a list, and pasted into another kit as one step of undo", async () => {
  await openDemo(session, "belfry-runner", "shape");
  await chooseRule(driver, "Hop");
  const ctrl = (letter: string) =>
    driver.actions().keyDown(Key.CONTROL).sendKeys(letter).keyUp(Key.CONTROL).perform();
  await ctrl("c");
  await ctrl("v");
  await keptKit("a second hop", kit => kit.moves!.some(({ name }) => name === "Hop 2"));
  await find(driver, `//*[@aria-label="Notices"]//*[contains(text(), "1 rule pasted: Hop 2.")]`);
  await clickOn(driver, `//button[.="Copy rules …"]`);
  for (const name of ["Hop", "Spring"])
    await clickOn(driver, `//ul[@aria-label="Rules to copy"]//label[.//b="${name}"]`);
  await driver.executeScript(
    `window.copied = []; navigator.clipboard.writeText = text => (window.copied.push(text), Promise.resolve());`,
  );
  await press(driver, "Copy 2 rules");
  const text = await driver.executeScript<string>("return window.copied[0]");
  await openDemo(session, "clapper-duel", "shape");
  await find(driver, "[data-testid=sentence]");
  await driver.executeScript(
    `navigator.clipboard.readText = () => Promise.resolve(arguments[0])`,
    "no rules",
  );
  await press(driver, "Paste rules");
  await find(driver, `//*[@aria-label="Notices"]//*[contains(text(), "The clipboard holds no rules")]`);
  const before = await keptKit("the duel", kit => kit.moves !== undefined);
  await driver.executeScript(
    `const [text] = arguments; navigator.clipboard.readText = () => Promise.resolve(text)`,
    text,
  );
  await press(driver, "Paste rules");
  const after = await keptKit("both rules", kit => kit.moves!.some(({ id }) => id === "spring"));
  expect(after.moves!.map(({ id }) => id)).toEqual([...before.moves!.map(({ id }) => id), "hop", "spring"]);
  await find(driver, `//*[@aria-label="Notices"]//*[contains(text(), "New controls, to be bound in Wire")]`);
  await press(driver, "Undo");
  const undone = await keptKit("none of them", kit => kit.moves?.length === before.moves!.length);
  expect(undone).toEqual(before);
});

test("a move is let follow another on a hit by its cell, the window is stepped, taken away, and all is undone", async () => {
  await openDemo(session, "clapper-duel", "shape");
  const before = await keptKit("the duel", kit => kit.moves !== undefined);
  await press(driver, "All moves as a table");
  const cell = (words: string) => find(driver, `button[aria-label="Great toll after Chime: ${words}"]`);
  await driver.executeScript("arguments[0].focus()", await cell("not before it is over"));
  await driver.actions().sendKeys(Key.ENTER).perform();
  await press(driver, "on a hit");
  await cell("6–25f on a hit");
  await clickOn(driver, 'input[aria-label="from frame"]');
  await driver.actions().sendKeys(Key.ARROW_UP).perform();
  await cell("7–25f on a hit");
  const kit = await keptKit("the window", made => made.moves![0]!.opens?.[1]?.from === "7f");
  expect(kit.moves![3]!.bans).toEqual(["struck"]);
  expect(compile(kit).ok).toBe(true);
  await press(driver, "Take this window away");
  await cell("not before it is over");
  for (let k = 0; k < 3; k++) await press(driver, "Undo");
  expect(await keptKit("as before", made => made.moves![3]!.needs === undefined)).toEqual(before);
});

test("a rule begun while the kit has faults has no counts: those at hand are of the rules before", async () => {
  await openDemo(session, "belfry-runner", "wire");
  await press(driver, "Delete control Crouch");
  await press(driver, "Shape");
  const noMap = '//p[contains(., "Its map of time comes back when the kit can be played again")]';
  await chooseRule(driver, "Hop");
  await find(driver, noMap);
  await startByHand("Charge and let go");
  await find(driver, noMap);
  expect(await driver.findElements(By.css("[data-testid=rule-tally]"))).toEqual([]);
});

test("a histogram and the tape draw no text that is not theirs", async () => {
  await runFirst(
    driver,
    `window.drawn = [];
    const draw = CanvasRenderingContext2D.prototype.fillText;
    CanvasRenderingContext2D.prototype.fillText = function (text, ...place) {
      drawn.push(String(text));
      return draw.call(this, text, ...place);
    };`,
  );
  const drawn = () => driver.executeScript<string[]>("return window.drawn");
  await openDemo(session, "belfry-runner", "shape");
  await chooseRule(driver, "Right twice");
  await clickOn(driver, '//summary[.="How far apart taps were"]');
  await waitFor(driver, "the axis of the chart", async () => (await drawn()).includes("0 f"));
  expect((await drawn()).filter(text => /undefined|NaN|\[object|^$/.test(text))).toEqual([]);
});
