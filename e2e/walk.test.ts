import { Key } from "selenium-webdriver";
import { expect, test } from "vitest";
import { formatTrace, readTake, type Kit, type Take, type TraceEvent } from "#core";
import { compileRules, listDrawn, runRules, stageOf } from "#stage";
import * as page from "./browser";
import { useSession } from "./session";

const session = useSession();

/** Each walk is a whole job of about half a minute on a quiet machine. */
const LONG_MS = 300_000;

/** Creates a designer whose every action is counted: a click, a choice, a typed number. */
function createDesigner() {
  const { driver } = session;
  let actions = 0;
  const counted =
    <A extends unknown[], R>(act: (...given: A) => R) =>
    (...given: A): R => {
      actions++;
      return act(...given);
    };
  const press = counted((words: string) => page.press(driver, words));
  const click = counted((where: string) => page.clickOn(driver, where));
  const choose = counted((label: string, words: string) => page.choose(driver, label, words));
  const type = counted((label: string, value: string) => page.typeOver(driver, label, value));
  const rule = counted((name: string) => page.openRule(driver, name));
  /** Renames the new rule once it is open. */
  const callIt = async (wasCalled: RegExp, name: string) => {
    await page.waitFor(driver, `the new rule ${wasCalled}`, async () =>
      wasCalled.test(
        (await (
          await page.find(driver, '[data-testid=sentence] input[aria-label="Name of this rule"]')
        ).getAttribute("value")) ?? "",
      ),
    );
    await type("Name of this rule", name);
  };
  /** Adds a clause from the offers below the sentence. */
  const add = async (words: string) => {
    const more = '//button[number(substring-before(normalize-space(.), " more")) > 0]';
    const offer = `//button[normalize-space(.)="${words}"]`;
    await page.find(driver, `${offer} | ${more}`);
    if ((await driver.findElements({ xpath: offer })).length === 0) await click(more);
    await press(words);
  };
  const begin = async (...goals: readonly string[]) => {
    await page.openShelf(session);
    await press("New kit");
    for (const goal of goals) await press(goal);
    await press(`Build these ${goals.length}, and play`);
    await page.find(driver, "[data-testid=stage]");
  };
  const newRule = async (words: string, control?: string) => {
    await press("New rule");
    if (control) await choose("Control of the new rule", control);
    await press(words);
  };
  /** Returns the open kit as stored, once it satisfies a condition. */
  const kept = (what: string, isIt: (kit: Kit) => boolean | undefined) => page.keptKit(driver, what, isIt);
  return { press, click, choose, type, rule, callIt, add, begin, newRule, kept, count: () => actions };
}

type Presses = Readonly<Record<string, readonly (readonly [from: number, to: number])[]>>;

/** Returns the events of presses held from one frame until another, for a kit on its stage. */
function play(kit: Kit, presses: Presses, frames = 240): readonly TraceEvent[] {
  const lanes = Object.fromEntries(
    Object.entries(presses).map(([id, list]) => [
      id,
      list.flatMap(([from, to]): [number, number][] => [
        [from, 1],
        [to, 0],
      ]),
    ]),
  );
  const take: Take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames, lanes };
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  return formatTrace(rules.value.program, runRules(rules.value, readTake(rules.value.program, take)).trace)
    .events;
}

/** Formats performances as "frame move" with the way. */
const performed = (events: readonly TraceEvent[]) =>
  events.flatMap(event => (event.kind === "performed" ? [`${event.f} ${event.id} ${event.by}`] : []));

test(
  "a platformer's jump, charge, second hop, run and modes, from an empty kit to exact frames",
  async () => {
    const { driver } = session;
    const { press, click, choose, type, rule, callIt, add, begin, newRule, kept, count } = createDesigner();
    await begin("A jump", "A charge", "A double tap");
    await rule("Jump");
    await add("… and ask again while it is held");
    await type("buffer", "7f");
    await type("coyote", "6f");
    await newRule("A move");
    await callIt(/^Move \d/, "Second hop");
    await press("use second-hop");
    await add("… if a gate is not open");
    await add("… and only so many times");
    await choose("effect on the stage", "leaps");
    await rule("Dash");
    await choose("effect on the stage", "runs");
    await callIt(/^Dash$/, "Run");
    await press("use run");
    await rule("Brace charge");
    await (
      await page.find(driver, '[aria-label="Paste a CSS easing function"]')
    ).sendKeys("linear(0, 0.2 60%, 1)", Key.ENTER);
    await press("Play");
    await choose("how height varies", "lifted while held");
    await type("length of the lift", "350ms");
    await type("walking on", "10f");
    await press("Wire");
    await click('//nav[@aria-label="Places in Wire"]//a[b="Modes"]');
    await press("Add a mode");
    await press("Add a mode");
    await choose("held buttons in Ground", "counts on");
    await choose("held buttons in Air", "counts on");
    await press("Leap in Ground: Jump, Second hop");
    await click("//label[contains(., 'Second hop')]/input");
    await driver.actions().sendKeys(Key.ESCAPE).perform();
    await press("Add a switch");
    await choose("how the gate turns: opens", "closes");
    await press("Add a switch");
    await press("Right in Air: Run, walks right");
    await click("//label[contains(., 'Run')]/input");
    await driver.actions().sendKeys(Key.ESCAPE).perform();
    const kit = await kept("all of it", ({ switches, moves }) =>
      Boolean(switches?.length === 2 && moves?.some(move => move.id === "run" && move.modes)),
    );
    const landing = (events: readonly TraceEvent[], after: number) =>
      events.find(event => event.kind === "mode" && event.id === "ground" && event.f > after)!.f;

    // Lifted for 21 frames (350 ms), up and down again: it lands 80 frames later, and repeats there while
    // held.
    expect(performed(play(kit, { leap: [[10, 100]] }))).toEqual(["10 jump direct", "90 jump direct"]);
    // In the air the second press is the second hop, once; a third one is buffered for 7 frames before the
    // landing.
    const twice = [
      [10, 12],
      [24, 26],
    ] as const;
    const down = landing(play(kit, { leap: twice }), 11);
    const early = (by: number) => performed(play(kit, { leap: [...twice, [down - by, down - by + 2]] }));
    expect(early(7)).toEqual(["10 jump direct", "24 second-hop direct", `${down} jump buffer`]);
    expect(early(8)).toEqual(["10 jump direct", "24 second-hop direct"]);
    // The ledge is left on frame 71: a coyote of 6 frames follows, then a second hop.
    const late = (at: number) => performed(play(kit, { right: [[0, 239]], leap: [[at, at + 2]] }));
    expect(late(76)).toEqual(["76 jump coyote"]);
    expect(late(77)).toEqual(["77 second-hop direct"]);
    // Two taps within 14 frames start a run, on the ground only; the output of a charge follows its curve.
    expect(
      performed(
        play(kit, {
          right: [
            [10, 14],
            [20, 60],
          ],
        }),
      ),
    ).toEqual(["20 run direct"]);
    expect(
      performed(
        play(kit, {
          leap: [[10, 40]],
          right: [
            [20, 24],
            [30, 34],
          ],
        }),
      ),
    ).toEqual(["10 jump direct"]);
    const charge = play(kit, { brace: [[10, 60]] }).find(
      event => event.kind === "fired" && event.id === "brace-charge",
    );
    // 50 of 60 frames: 0.2 + 0.8 × (50/60 − 0.6) / 0.4 = 2/3 of 8 to 26.
    expect(charge).toMatchObject({ f: 60, level: 2, value: 20 });
    console.log(`a platformer's kit in ${count()} actions`);
  },
  LONG_MS,
);

test(
  "a fighter's chain, charge, taps, motion, prompt and finisher, from an empty kit to exact frames",
  async () => {
    const { press, choose, type, rule, callIt, add, begin, newRule, kept, count } = createDesigner();
    await begin("A chain of attacks", "A charge", "Tap and hold", "A timed prompt");
    for (const name of ["Second blow", "Third blow"]) {
      await rule(name);
      await add("… with its buffer on a clock of its own");
    }
    await newRule("Double tap", "Catch");
    await callIt(/^Catch twice$/, "Catch count");
    await choose("what it answers", "the count, once sure");
    await type("number of taps", "3");
    await newRule("A move");
    await callIt(/^Move \d/, "Single");
    await press("use single");
    await add("… with exactly so many taps");
    await type("number of taps wanted", "1");
    for (const [name, taps] of [
      ["Double", "2"],
      ["Triple", "3"],
    ] as const) {
      await press("Duplicate");
      await callIt(/^Single|^Double/, name);
      await press(`use ${name.toLowerCase()}`);
      await type("number of taps wanted", taps);
    }
    await newRule("Motion and button", "Strike");
    await callIt(/^Quarter turn/, "Five steps");
    await add("… then one more step");
    await choose("step 5", "Strike");
    for (const [step, gap] of [
      [2, "8f"],
      [3, "9f"],
      [4, "7f"],
      [5, "12f"],
    ] as const) {
      await add(`… with a gap of its own for step ${step}`);
      await type(`gap before step ${step}`, gap);
    }
    await add("… and let a button cancel it");
    await choose("cancelling control", "Brace");
    await newRule("A gate");
    await callIt(/^Gate \d/, "Three firsts");
    await press("use three-firsts");
    await add("… once a move was performed so many times");
    await choose("move", "First blow");
    await newRule("A move");
    await callIt(/^Move \d/, "Finisher");
    await press("use finisher");
    await choose("pattern", "Five steps");
    await add("… if a gate is open");
    await choose("gate needed", "Three firsts");
    await add("… before or after other moves");
    await type("priority", "9");
    const fight = await kept("the fight", ({ moves }) =>
      moves?.some(move => move.id === "finisher" && move.needs?.[0]?.gate === "three-firsts"),
    );
    for (const control of ["Up", "Down"]) await newRule("Press", control);
    await press("Play");
    await press("Remove the stage");
    await press("ropes for its prompts");
    await choose("One more of prompts drawn", "Catch");
    for (const answer of ["Catch press", "Strike press", "Up press", "Down press"])
      await choose("One more of answers drawn from", answer);
    const ropes = await kept(
      "what is drawn",
      ({ stage }) => (stage as { pool?: unknown[] }).pool?.length === 4,
    );
    console.log(`a fighter's kit in ${count()} actions`);

    const only = (events: readonly TraceEvent[], ...ids: readonly string[]) =>
      performed(events).filter(line => ids.includes(line.split(" ")[1]!));
    // One, two and three taps: the first two once no further tap can come within 14 frames, the third at
    // once.
    const taps = (...at: readonly number[]) =>
      only(play(fight, { catch: at.map(from => [from, from + 2]) }), "single", "double", "triple");
    expect(taps(10)).toEqual(["25 single direct"]);
    expect(taps(10, 20)).toEqual(["35 double direct"]);
    expect(taps(10, 20, 30)).toEqual(["30 triple direct"]);
    // Released within 11 frames it is a tap, held for 12 a hold.
    expect(performed(play(fight, { toll: [[10, 21]] }))).toEqual(["21 quick-toll direct"]);
    expect(performed(play(fight, { toll: [[10, 30]] }))).toEqual(["22 slow-toll direct"]);
    expect(play(fight, { brace: [[10, 45]] })).toContainEqual(
      expect.objectContaining({ kind: "fired", id: "brace-charge", f: 45, level: 2 }),
    );
    // A blow that lands stops the game for 6 frames: buffers on the real clock continue.
    const opened = play(fight, { strike: [[10, 12]] }, 120).find(
      event => event.kind === "gate" && event.id === "second-may-follow" && event.open,
    )!.f;
    const follow = (by: number, kit = fight) =>
      performed(
        play(
          kit,
          {
            strike: [
              [10, 12],
              [opened - by, opened - by + 2],
            ],
          },
          120,
        ),
      );
    expect(opened).toBe(10 + 9 + 6);
    expect(follow(8)).toEqual(["10 first-blow direct", `${opened} second-blow buffer`]);
    expect(follow(9)).toEqual(["10 first-blow direct"]);
    const onGameClock = { ...fight, moves: fight.moves!.map(({ memory: _, ...move }) => move) } as Kit;
    expect(follow(9, onGameClock)).toEqual(["10 first-blow direct", `${opened} second-blow buffer`]);
    // Five steps, each within its own gap, after three opening blows; one frame late, or cancelled, there is
    // no fire.
    const blows = [10, 70, 130].map(from => [from, from + 2] as const);
    const motion = (firsts: number, last: number, cancel: Presses = {}) =>
      only(
        play(fight, {
          down: [[200, 217]],
          right: [[208, 250]],
          strike: [...blows.slice(0, firsts), [224, 226], [last, last + 2]],
          ...cancel,
        }),
        "finisher",
      );
    expect(motion(3, 236)).toEqual(["236 finisher direct"]);
    expect(motion(3, 237)).toEqual([]);
    expect(motion(1, 236)).toEqual([]);
    expect(motion(3, 236, { brace: [[220, 222]] })).toEqual([]);
    // Shown at 60f, open from 90f for 40f, best 20f in; the seed selects one of the four.
    const stage = stageOf(ropes);
    const [drawn] = stage?.kind === "ropes" ? listDrawn(ropes, stage) : [];
    const control = drawn!.pattern.replace("-press", "");
    expect(["catch", "strike", "up", "down"]).toContain(control);
    const outcome = (at: number) =>
      play(ropes, { [control]: [[at, at + 2]] }).flatMap(event =>
        event.kind === "prompt" && event.id === "catch" ? [`${event.f} ${event.outcome}`] : [],
      );
    expect(outcome(114)).toEqual(["60 shown", "90 open", "114 perfect"]);
    expect([115, 122, 123].map(at => outcome(at).at(-1))).toEqual(["115 good", "122 good", "123 ok"]);
  },
  LONG_MS,
);
