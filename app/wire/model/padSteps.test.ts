import fc from "fast-check";
import { expect, test } from "vitest";
import { padMapSchema, STANDARD_BUTTONS } from "#core";
import * as v from "valibot";
import type { PadReading } from "../../input/gamepads";
import { mapPad } from "../../input/padMapping";
import { createPadWatch, type Answer, type PadWatch } from "../../input/padWatch";
import { describeAnswer, mapOf, NO_ANSWERS, PAD_STEPS, stepOf, takenBy, type PadDraft } from "./padSteps";

/** The parts of a pad as a hand uses them: buttons from 0 to 1, sticks from −1 to 1. */
interface Hand {
  readonly buttons: readonly number[];
  readonly axes: readonly number[];
}

const STILL: Hand = { buttons: Array.from({ length: STANDARD_BUTTONS }, () => 0), axes: [0, 0, 0, 0] };
const pressing = (b: number, value = 1): Hand => ({ ...STILL, buttons: STILL.buttons.with(b, value) });
const pushing = (a: number, value: number): Hand => ({ ...STILL, axes: STILL.axes.with(a, value) });

/** The order of the buttons on the made-up pad: the lower right one is its button 2, and so on. */
const ORDER = [
  2,
  1,
  3,
  0,
  5,
  4,
  undefined,
  undefined,
  8,
  9,
  10,
  11,
  undefined,
  undefined,
  undefined,
  undefined,
  7,
];
/** The values of its hat switch, clockwise from the top; at rest it is outside of them. */
const HAT = [-1, -0.714, -0.428, -0.142, 0.142, 0.428, 0.714, 1];
const HAT_REST = 1.286;
const DRIFT = 0.06;

/** Returns what a pad with an order of its own reports. Its triggers report 0 until they were moved for the first time. */
function createStranger() {
  let isTriggerKnown = [false, false];
  return ({ buttons, axes }: Hand): PadReading => {
    const own = Array.from({ length: 12 }, () => ({ value: 0 }));
    ORDER.forEach((place, b) => place !== undefined && (own[place] = { value: buttons[b]! }));
    const [up, down, left, right] = [12, 13, 14, 15].map(b => buttons[b]! > 0.5);
    const across = Number(right) - Number(left);
    const high = Number(up) - Number(down);
    const turn = (Math.round(Math.atan2(across, high) / (Math.PI / 4)) + 8) % 8;
    isTriggerKnown = isTriggerKnown.map((is, k) => is || buttons[6 + k]! > 0);
    const trigger = (k: number) => (isTriggerKnown[k] ? buttons[6 + k]! * 2 - 1 : 0);
    const stick = (value: number) => Math.max(-1, Math.min(1, DRIFT + value * (1 - DRIFT)));
    const hat = across === 0 && high === 0 ? HAT_REST : HAT[turn]!;
    return {
      index: 0,
      id: "Stranger",
      mapping: "",
      connected: true,
      buttons: own,
      axes: [
        stick(axes[0]!),
        stick(-axes[1]!),
        trigger(0),
        stick(axes[2]!),
        stick(axes[3]!),
        trigger(1),
        0,
        0,
        0,
        hat,
      ],
    };
  };
}

/** Lets everything go for a while, and confirms it if the pad still seems to be touched; returns the answer. */
function letGo(watch: PadWatch, read: (hand: Hand) => PadReading): Answer | undefined {
  let answer: Answer | undefined;
  for (let n = 0; n < 30; n++) answer ??= watch.feed(read(STILL));
  return answer ?? (watch.isTouched() ? watch.settle() : undefined);
}

/** Goes through all steps as a hand would; returns the answers, and the words of refused ones. */
function goThrough(read: (hand: Hand) => PadReading): PadDraft {
  const watch = createPadWatch();
  let draft = NO_ANSWERS;
  for (let n = 0; n < 12; n++) watch.feed(read(STILL));
  for (const { asked, button, axis } of PAD_STEPS) {
    watch.ask(asked);
    const before = draft.answers.length;
    const shares = [0.1, 0.4, 0.7, ...Array.from({ length: 20 }, () => 1), 0.6, 0.2];
    const hands = shares.map(share =>
      button === undefined ? pushing(axis!, share) : pressing(button, share),
    );
    for (const hand of hands) expect(watch.feed(read(hand))).toBe(undefined);
    const answer = letGo(watch, read);
    if (!answer) throw new Error(`no answer: ${PAD_STEPS[before]!.words}`);
    expect(takenBy(draft, answer)).toBe(undefined);
    draft = { answers: [...draft.answers, answer] };
  }
  expect(stepOf(draft)).toBe(undefined);
  return draft;
}

test("a pad with a hat switch, triggers as axes and drifting sticks plays as a standard one after one press of each part", () => {
  const read = createStranger();
  const map = mapOf("Stranger", goThrough(read));
  expect(v.parse(padMapSchema, map)).toEqual(map);
  expect(map.buttons.length).toBe(STANDARD_BUTTONS);
  const crossed = fc.tuple(fc.constantFrom(-1, 0, 1), fc.constantFrom(-1, 0, 1));
  const plain = fc.array(fc.constantFrom(0, 1), { minLength: STANDARD_BUTTONS, maxLength: STANDARD_BUTTONS });
  const sticks = fc.array(fc.constantFrom(-1, -0.5, 0, 0.25, 1), { minLength: 4, maxLength: 4 });
  const triggers = fc.tuple(fc.constantFrom(0, 0.25, 0.5, 1), fc.constantFrom(0, 0.25, 0.5, 1));
  fc.assert(
    fc.property(plain, crossed, sticks, triggers, (pressed, [across, high], axes, [left, right]) => {
      const buttons = pressed.map((value, b) => {
        if (b === 6) return left;
        if (b === 7) return right;
        if (b < 12 || b > 15) return value;
        return Number([high > 0, high < 0, across < 0, across > 0][b - 12]);
      });
      const now = mapPad(read({ buttons, axes }), map);
      expect(now.mapping).toBe("standard");
      now.buttons.forEach(({ value }, b) => expect(value, `button ${b}`).toBeCloseTo(buttons[b]!, 1));
      // The drift is taken out at rest; on its other side a stick reaches its end a little before.
      now.axes.forEach((value, a) => expect(Math.abs(value - axes[a]!), `axis ${a}`).toBeLessThan(0.15));
      axes.forEach((value, a) => value === 0 && expect(now.axes[a]).toBeCloseTo(0, 2));
    }),
    { numRuns: 200 },
  );
});

test("a part pressed a second time is refused by its name; a part that is missing is left out", () => {
  const read = createStranger();
  const watch = createPadWatch();
  for (let n = 0; n < 12; n++) watch.feed(read(STILL));
  watch.feed(read(pressing(0)));
  const first = letGo(watch, read)!;
  expect(describeAnswer(first)).toBe("button 2");
  const draft = { answers: [first, null] };
  expect(takenBy(draft, first)?.words).toBe(PAD_STEPS[0]!.words);
  expect(mapOf("Stranger", draft).buttons).toEqual([{ is: 0, source: { kind: "button", button: 2 } }]);
});

test("a hat rolled over its neighbours is known by the direction that it was held in", () => {
  const read = createStranger();
  const watch = createPadWatch();
  for (let n = 0; n < 12; n++) watch.feed(read(STILL));
  watch.ask("direction");
  const both: Hand = { ...STILL, buttons: STILL.buttons.with(12, 1).with(15, 1) };
  for (const hand of [both, ...Array.from({ length: 9 }, () => pressing(15)), both]) watch.feed(read(hand));
  const answer = letGo(watch, read);
  expect(answer && describeAnswer(answer)).toBe("axis 9 at −0.43");
});

test("a trigger held for long is not taken for its rest, and a pad that lost an axis reads 0 there", () => {
  const read = createStranger();
  const watch = createPadWatch();
  for (let n = 0; n < 12; n++) watch.feed(read(STILL));
  watch.ask("trigger");
  for (let n = 0; n < 200; n++) expect(watch.feed(read(pressing(6)))).toBe(undefined);
  const answer = letGo(watch, read);
  expect(answer && describeAnswer(answer)).toBe("axis 2, −1 to 1");
  const map = mapOf("Stranger", { answers: [...Array.from({ length: 10 }, () => null), answer!] });
  expect(mapPad({ ...read(STILL), axes: [] }, map).buttons[6]).toEqual({ value: 0 });
});
