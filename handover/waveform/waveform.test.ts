import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import VCDParser from "vcd-parser";
import { formatTrace, parseTake, readTake, type Kit, type Take } from "#core";
import { compileRules, runRules } from "#stage";
import { INHERITED, renameIds } from "../../core/tests/inheritedNames";
import { readVcd, type Dump } from "./readVcd";
import { unitFor, writeVcd } from "./writeVcd";

function dumpOf(demo: string, name: string, change: (take: Take) => Take = take => take, rate?: number) {
  const kit = JSON.parse(readFileSync(`demo/${demo}/kit.json`, "utf8")) as Kit;
  const take = parseTake(JSON.parse(readFileSync(`demo/${demo}/${name}.json`, "utf8")));
  const rules = compileRules(rate === undefined ? kit : { ...kit, rate });
  if (!take.ok || !rules.ok) throw new Error("the demo does not read");
  const { program } = rules.value;
  const played = change(take.value);
  const { trace } = runRules(rules.value, readTake(program, played));
  return {
    program,
    trace,
    text: writeVcd(program, trace, played),
    events: formatTrace(program, trace).events,
  };
}

test("a control named like an inherited member, without a lane, is low all along", () => {
  const kit = JSON.parse(readFileSync("demo/rope-catch/kit.json", "utf8")) as Kit;
  const [control] = kit.controls;
  for (const name of INHERITED) {
    const rules = compileRules(renameIds(kit, new Map([[control!.id, name]])));
    if (!rules.ok) throw new Error(`${name} does not compile`);
    const { program } = rules.value;
    const bare: Take = { ...EMPTY, rate: kit.rate };
    const { trace } = runRules(rules.value, readTake(program, bare));
    const dump = read(writeVcd(program, trace, bare));
    expect(dump.signals.length, name).toBeGreaterThan(0);
  }
});

const EMPTY: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "empty",
  name: "Empty",
  rate: 60,
  frames: 30,
  lanes: {},
};

function read(text: string): Dump {
  const dump = readVcd(text);
  if (!dump.ok) throw new Error(JSON.stringify(dump.issues));
  return dump.value;
}

const DEMOS = [
  ["belfry-runner", "1-clean-climb"],
  ["clapper-duel", "1-clean-bout"],
  ["rope-catch", "2-sloppy-round"],
] as const;

test.each(DEMOS)("a take of %s comes back from its waveform with every event on its frame", (demo, name) => {
  const { program, text, events, trace } = dumpOf(demo, name);
  const dump = read(text);
  const unit = unitFor(program.rateHz);
  expect(dump.unitSeconds).toBe(1e-9);
  expect(unit.frameOf(dump.end)).toBe(trace.frames);
  const framesOn = (scope: string, id: string) =>
    dump.signals
      .find(({ path }) => path === `${scope}.${id}`)!
      .changes.filter(([, value]) => value === 1)
      .map(([time]) => unit.frameOf(time));
  const framesOf = (kind: string, id: string) =>
    events.filter(event => event.kind === kind && event.id === id).map(({ f }) => f);
  for (const { id } of program.moves) expect(framesOn("performed", id)).toEqual(framesOf("performed", id));
  for (const { id } of program.patterns) expect(framesOn("fires", id)).toEqual(framesOf("fired", id));
  for (const { id } of program.prompts) {
    const shown = events.filter(
      event => event.kind === "prompt" && event.id === id && event.outcome === "shown",
    );
    expect(framesOn("prompts", id)).toEqual(shown.map(({ f }) => f));
  }
});

test.each(DEMOS)(
  "a reader that is not ours reads the waveform of %s signal by signal as ours does",
  async (demo, name) => {
    const { text } = dumpOf(demo, name);
    const theirs = (await VCDParser.parse(text)) as {
      timescale: string;
      endtime: string;
      signal: { name: string; module: string; size: number; wave: [string, string][] }[];
    };
    const ours = read(text);
    expect(theirs.timescale.replace(" ", "")).toBe("1ns");
    expect(Number(theirs.endtime)).toBe(ours.end);
    expect(theirs.signal.length).toBe(ours.signals.length);
    for (const { path, changes, width } of ours.signals) {
      const own = theirs.signal.find(item => item.name === path)!;
      expect(own.size, path).toBe(width);
      const wave = own.wave.map(([time, value]) => [Number(time), parseInt(value.replace(/^b/, ""), 2)]);
      expect(wave, path).toEqual(changes.map(([time, value]) => [time, value]));
    }
  },
);

test("at any rate every frame has a unique whole time without drift", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1000 }), fc.integer({ min: 0, max: 17_280_000 }), (rate, frame) => {
      const { timeOf, frameOf } = unitFor(rate);
      expect(Number.isSafeInteger(timeOf(frame))).toBe(true);
      expect(frameOf(timeOf(frame))).toBe(frame);
      expect(timeOf(frame + 1)).toBeGreaterThan(timeOf(frame));
    }),
  );
});

test("analog values are exported as reals, unusual names as valid ones", () => {
  const { text } = dumpOf("belfry-runner", "1-clean-climb", take => ({
    ...take,
    lanes: {
      ...take.lanes,
      left: [
        [3, 0.25],
        [9.5, 0.75],
        [20, 0],
      ],
    },
  }));
  const left = read(text).signals.find(({ path }) => path === "values.left")!;
  expect(left.sort).toBe("real");
  expect(left.changes.map(([time, value]) => [unitFor(60).frameOf(time), value])).toEqual([
    [0, 0],
    [3, 0.25],
    [10, 0.75],
    [20, 0],
  ]);
});

test.each([
  ["", "line 1", "no $enddefinitions"],
  ["$timescale 3 ns $end", "line 1", "3ns"],
  ["$var wire ! $end", "line 1", "$var"],
  ["$var wire 1 ! a $end\n$enddefinitions $end\n#5\n1?", "line 4", "?"],
  ["$var wire 1 ! a $end\n$enddefinitions $end\n#5\n1!\n#4", "line 5", "#4"],
  ["$var wire 1 ! a $end\n$enddefinitions $end\n#5\nq!", "line 4", "q!"],
])("a dump with a fault is refused with its line: %j", (text, line, found) => {
  const dump = readVcd(text);
  expect(dump.ok || dump.issues[0]).toMatchObject({ code: "dump", path: [line], facts: { found } });
});

test("no text makes the reader throw", () => {
  const piece = fc.constantFrom(
    "$var",
    "wire",
    "1",
    "!",
    "a",
    "$end",
    "#5",
    "1!",
    "b101",
    "rx",
    "$scope",
    "$dumpvars",
    "\n",
    "$enddefinitions",
    "$x",
    "é",
  );
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.array(piece).map(words => words.join(" ")),
      ),
      text => {
        const dump = readVcd(text);
        if (!dump.ok) expect(dump.issues.length).toBeGreaterThan(0);
      },
    ),
  );
});
