import { expect, test } from "vitest";
import { describeGate } from "../gates/describeGate";
import { describeSwitch } from "../modes/describeSwitch";
import { describeMove } from "../moves/describeMove";
import { describePattern } from "../patterns/describePattern";
import { describePrompt } from "../prompts/describePrompt";
import { sketchKit } from "../tests/strips";
import { deleteAt, readAt, takeOut, writeAt } from "./editAt";
import type { Gate, Move, Pattern, Prompt } from "./schema";
import { formatSentence, type RefList, type SentencePart } from "./sentence";

const KIT = sketchKit("ab", {
  sticks: [{ id: "s", name: "Stick", up: "a", down: "b", left: "a", right: "b" }],
  gates: [{ id: "g", name: "Ground" }],
  modes: [{ id: "m", name: "Air" }],
});

const say = (parts: readonly SentencePart[]) =>
  formatSentence(parts, (list: RefList, id) => (list === "direction" ? `[${id}]` : id.toUpperCase()));

const head = { id: "p", name: "P" };

test.each<[Pattern, string]>([
  [{ ...head, kind: "press", control: "a" }, "P when A is pressed"],
  [
    { ...head, kind: "press", control: "a", repeat: { after: "18f", every: "6f" } },
    "P when A is pressed, and while it is held again after 18f, then every 6f",
  ],
  [{ ...head, kind: "release", control: "b", modes: ["m"] }, "P when B is let go; only in M"],
  [{ ...head, kind: "tap", control: "a", max: "9f" }, "P when A is tapped: let go within 9f"],
  [
    { ...head, kind: "hold", control: "a", for: "12f", fire: "release", max: "60f", cancel: ["b"] },
    "P when A is held for 12f and no longer than 60f, when let go; B cancels it",
  ],
  [
    {
      ...head,
      kind: "hold",
      control: "a",
      for: "12f",
      fire: "reach",
      repeat: { every: "6f" },
      clock: "real",
    },
    "P when A is held for 12f, at once, and again every 6f; by real time",
  ],
  [
    { ...head, kind: "charge", control: "a", from: "4f", full: "40f", fire: "either", limit: "90f" },
    "P while A is held charges from 4f to full at 40f, and fires when let go or full; lost past 90f",
  ],
  [
    { ...head, kind: "taps", control: "a", count: 1, gap: "10f", answer: "each", max: "8f" },
    "P when A is tapped 1 time, within 10f of the one before, answering every tap; no tap longer than 8f",
  ],
  [
    { ...head, kind: "chord", controls: ["a", "b"], spread: "3f", for: "20f", captures: true },
    "P when A and B are down together, pressed within 3f of each other, and held for 20f; no other rule sees its controls",
  ],
  [
    {
      ...head,
      kind: "sequence",
      gap: "8f",
      total: "30f",
      others: "break",
      steps: [
        { dir: "s:2", for: "6f" },
        { together: ["a", "b"], within: "2f" },
        { release: "a", gap: "12f", after: "2f" },
      ],
    },
    "P on turn [s:2] for 6f, then press together A with B within 2f, then let go A within 12f not before 2f: each within 8f of the one before, all within 30f; any other press breaks it",
  ],
  [
    { ...head, kind: "mash", controls: ["a", "b"], count: 6, within: "60f", alternate: true },
    "P when A or B is pressed 6 times within 60f, never the same one twice running",
  ],
])("%j reads as a sentence", (pattern, sentence) => {
  expect(say(describePattern(pattern, KIT))).toBe(sentence);
});

test("a move's sentence lists its needs, its conditions and its effects", () => {
  const move: Move = {
    id: "m",
    name: "Blow",
    pattern: "p",
    when: { count: 2 },
    needs: [{ gate: "g", coyote: "4f" }, { gate: "h" }],
    bans: ["busy:main"],
    buffer: "6f",
    cooldown: "30f",
    uses: { max: 2, refill: "g" },
    frames: { startup: "5f", active: "3f", recovery: "9f" },
    opens: [{ gate: "link", from: "6f", to: "14f" }],
    spends: ["g"],
    shares: true,
  };
  expect(say(describeMove(move))).toBe(
    "Blow on P with exactly 2 taps, if G and H are open, not while BUSY:MAIN is open: buffer 6f, coyote 4f; not again for 30f; only 2 times until G is open; startup 5f, active 3f, recovery 9f; opens LINK from 6f to 14f; spends G; shares its press with other moves",
  );
  expect(say(describeMove({ id: "m", name: "Free", pattern: "p", bans: ["g"] }))).toBe(
    "Free on P, not while G is open",
  );
  expect(say(describeMove({ id: "m", name: "Hop", pattern: "p", again: "held", memory: "real" }))).toBe(
    "Hop on P; asks again as long as it is held; its buffer counts in real time",
  );
});

test.each<[Gate, string]>([
  [{ id: "x", name: "X", all: ["g"] }, "X is open while all of G are"],
  [
    { id: "x", name: "X", any: ["g", "h"], spentFor: "133ms" },
    "X is open while any of G or H is; once spent, it refills after 133ms",
  ],
  [{ id: "x", name: "X", while: "p" }, "X is open while P has fired and lasts"],
  [{ id: "x", name: "X", fires: "p", atLeast: 1 }, "X is open once P has fired 1 time"],
  [
    { id: "x", name: "X", performs: "m", atLeast: 3, until: "g" },
    "X is open once M has been performed 3 times; the count is 0 while G is open",
  ],
])("gate %j", (gate, sentence) => {
  expect(say(describeGate(gate))).toBe(sentence);
});

test("a switch and a prompt", () => {
  expect(say(describeSwitch({ when: { gate: "g", turns: "closed" }, to: "m" }, KIT))).toBe(
    "Goes to M when gate G closes",
  );
  expect(say(describeSwitch({ when: { move: "hop" }, to: "m" }, KIT))).toBe(
    "Goes to M when move HOP was performed on the frame before",
  );
  const prompt: Prompt = {
    id: "q",
    name: "Catch",
    ask: ["p"],
    starts: { prompt: "r", on: "any" },
    window: "20f",
    wrong: "fail",
    wrongOn: ["b"],
    captures: ["a"],
    opens: "g",
  };
  expect(say(describePrompt(prompt, KIT))).toBe(
    "Catch asks for P, shown after R is over, for 20f; a press of B fails it; while it is open no other rule sees A; its window opens G",
  );
});

test("a value at a path is written and deleted with a list left empty; everything off the path is shared", () => {
  const document = { a: [{ b: 1 }, { b: 2 }], c: { d: ["x"] } };
  expect(readAt(document, ["a", 1, "b"])).toBe(2);
  const written = writeAt(document, ["a", 1, "b"], 5);
  expect(written.a[1]!.b).toBe(5);
  expect(written.c).toBe(document.c);
  expect(deleteAt(document, ["a", 0])).toEqual({ a: [{ b: 2 }], c: { d: ["x"] } });
  expect(deleteAt(document, ["c", "d", 0])).toEqual({ a: document.a, c: {} });
  expect(deleteAt(document, ["c"])).toEqual({ a: document.a });
  expect(deleteAt(document, ["nowhere", 3, "x"])).toBe(document);
  const gates = { gates: [{ id: "x", name: "X", fires: "p", atLeast: 3, until: "g" }] };
  expect(takeOut(gates, ["gates", 0, "fires"])).toEqual({ gates: [{ id: "x", name: "X" }] });
  expect(takeOut(gates, ["gates", 0, "until"]).gates[0]).toEqual({
    id: "x",
    name: "X",
    fires: "p",
    atLeast: 3,
  });
});
