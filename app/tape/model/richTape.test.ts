import { expect, test } from "vitest";
import { createTrace, formatOutput, parseKit, rewindTrace, type Kit, type Take } from "#core";
import { buildTape, createTapeBuilder } from "./buildTape";
import { listFacts } from "./frameFacts";
import { evaluateWith } from "../../tests/evaluated";
import { keyOfRow } from "./tapeRows";

function read<T>(parsed: { ok: true; value: T } | { ok: false; issues: unknown }): T {
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return parsed.value;
}

const KIT: Kit = read(
  parseKit({
    format: "moss-tap/kit",
    version: 1,
    id: "rich",
    name: "Rich",
    rate: 60,
    controls: ["u", "d", "l", "r", "a"].map(id => ({ id, name: id.toUpperCase(), bindings: [] })),
    sticks: [{ id: "s", name: "Stick", up: "u", down: "d", left: "l", right: "r", mirrorWhen: "turned" }],
    gates: [
      { id: "turned", name: "Turned" },
      { id: "ground", name: "Ground" },
    ],
    patterns: [
      {
        id: "c",
        name: "Charge",
        kind: "charge",
        control: "a",
        full: "20f",
        levels: [{ name: "half", at: "10f" }],
        output: [0, 8],
        fire: "release",
      },
      { id: "p", name: "Press", kind: "press", control: "a" },
    ],
    moves: [
      {
        id: "m",
        name: "Move",
        pattern: "p",
        needs: [{ gate: "ground", coyote: "4f" }],
        frames: { startup: "2f", active: "3f", recovery: "4f" },
      },
    ],
    prompts: [
      {
        id: "q",
        name: "Prompt",
        ask: ["p"],
        starts: { at: "1f" },
        window: "20f",
        grades: [{ name: "perfect", within: "6f" }],
      },
    ],
  }),
);

function take(fields: Partial<Take>): Take {
  return {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 80,
    lanes: {},
    ...fields,
  };
}

function build(fields: Partial<Take>) {
  const made = take(fields);
  const { rules, trace } = evaluateWith(KIT, made);
  const model = buildTape(rules, trace, made);
  return { rules, trace, model, row: (key: string) => model.rows.find(row => keyOfRow(row) === key)! };
}

test("a stick has a row of digits, mirrored while its gate is open", () => {
  const { row } = build({
    lanes: {
      d: [
        [2, 1],
        [6, 0],
      ],
      r: [
        [4, 1],
        [12, 0],
      ],
    },
    gates: {
      turned: [
        [8, 1],
        [10, 0],
      ],
    },
  });
  const { spanFrom, spanTo, spanText } = row("controls:s");
  expect(spanFrom.map((from, k) => [from, spanTo[k], spanText[k]])).toEqual([
    [2, 4, "2 ↓"],
    [4, 6, "3 ↘"],
    [6, 8, "6 →"],
    [8, 10, "4 ←"],
    [10, 12, "6 →"],
  ]);
});

test("analog values are drawn and listed; a lane of 0 and 1 has none", () => {
  const { row, model, rules, trace } = build({
    lanes: {
      a: [
        [2, 0.3],
        [5, 0.8],
        [9, 0],
      ],
      u: [
        [1, 1],
        [3, 0],
      ],
    },
  });
  expect(row("controls:a")).toMatchObject({ valueFrame: [2, 5, 9], value: [0.3, 0.8, 0] });
  expect(row("controls:u").valueFrame).toEqual([]);
  const facts = listFacts(model, rules, trace, 6);
  expect(facts).toContainEqual({ name: "A", fact: "at 0.8 of 1" });
});

test("a charge has its level and output on every forming frame", () => {
  const { row, model, rules, trace } = build({
    lanes: {
      a: [
        [5, 1],
        [30, 0],
      ],
    },
  });
  const { growth } = row("patterns:c");
  expect(formatOutput(growth!, 500)).toBe("2");
  const facts = listFacts(model, rules, trace, 20);
  expect(facts).toContainEqual({ name: "Charge", fact: "forming, 15f of 20f, half, 6" });
});

test("slow motion has a row of its own, and timelines and coyotes follow the game clock", () => {
  const fast = build({
    lanes: {
      a: [
        [50, 1],
        [52, 0],
      ],
    },
    gates: {
      ground: [
        [0, 1],
        [70, 0],
      ],
    },
  });
  const slow = build({
    lanes: {
      a: [
        [50, 1],
        [52, 0],
      ],
    },
    gates: {
      ground: [
        [0, 1],
        [70, 0],
      ],
    },
    speed: [[0, 50]],
  });
  const lengths = (found: ReturnType<typeof build>) =>
    found.row("moves:m").spanFrom.map((from, k) => found.row("moves:m").spanTo[k]! - from);
  expect(lengths(fast)).toEqual([2, 3, 4]);
  expect(lengths(slow)).toEqual([4, 6, 8]);
  const tail = (found: ReturnType<typeof build>) =>
    found.row("gates:ground").spanTo.at(-1)! - found.row("gates:ground").spanFrom.at(-1)!;
  expect([tail(fast), tail(slow)]).toEqual([4, 8]);
  expect(slow.row("time:speed")).toMatchObject({ spanFrom: [0], spanTo: [80], spanText: ["50 %"] });
});

test("an answered prompt has its grade beside the mark", () => {
  const { row } = build({
    lanes: {
      a: [
        [4, 1],
        [6, 0],
      ],
    },
  });
  expect(row("prompts:q")).toMatchObject({ markLook: ["answered"], markText: ["perfect"] });
});

test("a tape extended as it grows equals the tape built at once", () => {
  const made = take({
    lanes: {
      a: [
        [5, 1],
        [30, 0],
        [40, 1],
      ],
      r: [
        [3, 1],
        [60, 0],
      ],
    },
    gates: { ground: [[20, 1]] },
  });
  const { rules, trace: whole } = evaluateWith(KIT, made);
  const builder = createTapeBuilder(rules);
  let model = builder.extend(createTrace(60));
  for (const frames of [10, 31, 80]) {
    const part = { ...evaluateWith(KIT, made).trace };
    rewindTrace(part, frames);
    model = builder.extend({ ...part, frames });
  }
  const atOnce = buildTape(rules, whole);
  const shown = (rows: typeof model.rows) =>
    rows.map(row => [keyOfRow(row), row.spanFrom, row.spanTo.map(to => Math.min(to, 80)), row.markFrame]);
  expect(shown(model.rows)).toEqual(shown(atOnce.rows));
});

test("a long trace is read over several pictures, and each shows the frames that it has read", () => {
  const presses = Array.from({ length: 1500 }, (_, k): [number, number][] => [
    [k * 8 + 2, 1],
    [k * 8 + 5, 0],
  ]).flat();
  const made = take({ frames: 12_100, lanes: { a: presses, r: presses.slice(0, 900) } });
  const { rules, trace } = evaluateWith(KIT, made);
  const builder = createTapeBuilder(rules);
  const frames: number[] = [];
  let model = builder.extend(trace);
  for (; model.frames < trace.frames; model = builder.extend(trace)) frames.push(model.frames);
  expect(frames.length).toBeGreaterThan(1);
  expect([...frames].sort((a, b) => a - b)).toEqual(frames);
  const atOnce = buildTape(rules, trace);
  const shown = (rows: typeof model.rows) =>
    rows.map(row => [
      keyOfRow(row),
      row.spanFrom,
      row.spanTo.map(to => Math.min(to, trace.frames)),
      row.markFrame,
    ]);
  expect(shown(model.rows)).toEqual(shown(atOnce.rows));
});
