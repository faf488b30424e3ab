import { readFileSync } from "node:fs";
import { Readable } from "node:stream";
import fc from "fast-check";
import Papa from "papaparse";
import { expect, test } from "vitest";
import {
  formatIssue,
  formatTrace,
  parseMapping,
  parseTake,
  readTake,
  type Kit,
  type Mapping,
  type Result,
  type Take,
} from "#core";
import { compileRules, runRules } from "#stage";
import { writeVcd } from "../waveform/writeVcd";
import { finestOf, readCell, toFrames } from "./createRecording";
import { guessDumpMapping, guessTableMapping } from "./guessMapping";
import { guessControls, guessGates, guessSpeeds } from "./guessNames";
import { readClock } from "./readClock";
import { glanceAtTable, parseTable, TABLE_HEAD_BYTES } from "./parseTable";
import { readDump } from "./readDump";
import { beginTable, feedTable } from "./readTable";

const KIT = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as Kit;
const TAKE = (() => {
  const take = parseTake(JSON.parse(readFileSync("demo/belfry-runner/2-late-at-every-edge.json", "utf8")));
  if (!take.ok) throw new Error("the demo does not read");
  return take.value;
})();
const NAMED = { id: "read", name: "Read" };

const mapping = (fields: Partial<Mapping>): Mapping => {
  const read = parseMapping({
    format: "moss-tap/mapping",
    version: 1,
    sort: "changes",
    rate: 60,
    controls: {},
    ...fields,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
};

function readTable(text: string, by: Mapping) {
  const feed = feedTable(by);
  feed.rows(Papa.parse<string[]>(text).data);
  return mustRead(feed.finish(NAMED));
}

function mustRead<T>(read: Result<T>): T {
  if (!read.ok) throw new Error(read.issues.map(formatIssue).join("; "));
  return read.value;
}

const asIs = Object.fromEntries(KIT.controls.map(({ id }) => [id, id]));
const CHANGES = mapping({ time: "at", unit: "frames", control: "what", value: "how", controls: asIs });

/** Returns a take's changes as rows, ordered by time. */
const rowsOf = (take: Take, toTime: (x: number) => number) =>
  Object.entries(take.lanes)
    .flatMap(([what, lane]) => lane.map(([x, how]) => ({ at: toTime(x), what, how })))
    .sort((a, b) => a.at - b.at);

const traceOf = (take: Take) => {
  const rules = compileRules(KIT);
  if (!rules.ok) throw new Error("the demo has faults");
  const { trace } = runRules(rules.value, readTake(rules.value.program, take));
  return { ...rules.value, trace, events: formatTrace(rules.value.program, trace).events };
};

test.each([
  ["frames", (x: number) => x],
  ["ms", (x: number) => (x * 1000) / 60],
  ["s", (x: number) => x / 60],
] as const)("a table of changes in %s gives the take it was written from", (unit, toTime) => {
  const { take, notes } = readTable(Papa.unparse(rowsOf(TAKE, toTime)), { ...CHANGES, unit });
  expect(notes).toEqual([]);
  for (const [id, lane] of Object.entries(TAKE.lanes))
    expect(take.lanes[id]?.map(([x, value]) => [Math.round(x * 1e4) / 1e4, value])).toEqual(lane);
  const last = Math.max(...Object.values(TAKE.lanes).flatMap(lane => lane.map(([x]) => x)));
  // A table of changes has no end of its own: a second more lets its last press be judged.
  expect(take.frames).toBe(Math.ceil(last) + 60);
  expect(parseTake(take).ok).toBe(true);
});

test("a table of frames has a column per control, and words for down and up", () => {
  const by = mapping({ sort: "frames", controls: { Jump: "leap", Go: "right" } });
  const { take, notes } = readTable(
    "Jump,Go,Other\nup,down,1\ndown,down,1\npressed,down,1\n0,released,1\nmaybe,off,1\n",
    by,
  );
  expect(take.lanes).toEqual({
    leap: [
      [1, 1],
      [3, 0],
    ],
    right: [
      [0, 1],
      [3, 0],
    ],
  });
  expect(take.frames).toBe(5);
  expect(notes).toEqual(["line 6: “maybe” is no value of Jump: write 0 to 1, down or up"]);
  expect(["1", "0.25", "0,5", "TRUE", "", "2", "x"].map(readCell)).toEqual([
    1,
    0.25,
    0.5,
    1,
    0,
    undefined,
    undefined,
  ]);
  expect([
    toFrames(100, "ms", 60),
    toFrames(1, "s", 144),
    toFrames(7, "frames", 60),
    toFrames(16_666_667, "ns", 60),
  ]).toEqual([6, 144, 7, 1]);
});

test("a table of frames ends with its last row, also by its times: nothing is held on that was not recorded", () => {
  const rows = Array.from({ length: 30 }, (_, k) => [k, (k / 60).toFixed(3), k > 20 ? 1 : 0].join(","));
  const text = ["frame,time,leap", ...rows].join("\n");
  const by = mapping({ sort: "frames", controls: { leap: "leap" } });
  for (const timed of [{}, { time: "frame" }, { time: "time", unit: "s" }] as const) {
    const { take } = readTable(text, { ...by, ...timed });
    expect(take.frames, JSON.stringify(timed)).toBe(30);
    expect(take.lanes).toEqual({ leap: [[21, 1]] });
  }
  // A time that no take has is left out, and does not lengthen it.
  expect(readTable(`${text}\n1e12,9,1`, { ...by, time: "frame" }).take.frames).toBe(30);
  expect(readTable("frame,leap\n", { ...by, time: "frame" }).take.frames).toBeGreaterThan(0);
});

test("frames whose times were rounded or cut by their writer are those frames again", () => {
  for (const rateHz of [30, 50, 60, 72, 120, 144, 240])
    for (const [unit, perSecond] of [
      ["ms", 1000],
      ["us", 1_000_000],
    ] as const)
      for (let frame = 0; frame < 5000; frame += 7) {
        const exact = (frame * perSecond) / rateHz;
        for (const written of [Math.round(exact), Math.floor(exact)])
          expect(toFrames(written, unit, rateHz, 1)).toBe(frame);
        const seconds = (exact / perSecond).toFixed(4);
        expect(toFrames(Number(seconds), "s", rateHz, finestOf(seconds))).toBe(frame);
      }
  // Between two frames a time stays, and a unit too coarse to name a frame is taken as it is.
  expect([41, 49, 51].map(ms => toFrames(ms, "ms", 60, 1))).toEqual([2.46, 2.94, 3.06]);
  expect(toFrames(0.1, "s", 72, 0.1)).toBe(7.2);
  expect(toFrames(1.9, "frames", 60, 0.1)).toBe(1.9);
  expect(["17", "0,017", "-1.25", "5.", "1e-3"].map(finestOf)).toEqual([1, 0.001, 0.01, 1, 0]);
});

test("times of a clock begin with the first row, and rounded ones are still the frames they name", () => {
  for (const rate of [60, 144])
    for (const cut of [Math.round, Math.floor]) {
      const began = 1_701_430_000_123.4;
      const stamp = (frame: number) => cut(began + (frame * 1000) / rate);
      const rows = [0, 1, 2, 5, 6, 601, 602].map((frame, k) => `${stamp(frame)},${k % 2}`);
      const by = mapping({
        sort: "frames",
        rate,
        time: "t",
        unit: "ms",
        start: "first-row",
        controls: { a: "leap" },
      });
      const { take, notes } = readTable(["t,a", ...rows].join("\n"), by);
      expect(notes).toEqual([]);
      expect(take.lanes.leap!.map(([x]) => x)).toEqual([1, 2, 5, 6, 601, 602]);
    }
  const startOf = (...times: readonly string[]) =>
    guessTableMapping(
      KIT,
      ["time_s", "Leap"],
      times.map(time => [time, "0"]),
    ).start;
  expect([startOf("0.5", "0.51"), startOf("132.5", "132.6"), startOf()]).toEqual([
    undefined,
    "first-row",
    undefined,
  ]);
});

test("a gate is open while its column is not 0, whatever it counts", () => {
  const by = mapping({ sort: "frames", controls: {}, gates: { contacts: "footing" } });
  const { take, notes } = readTable("contacts\n2\n0\n-1\nyes\n\nup\nairborne\n4\n", by);
  expect(take.gates).toEqual({
    footing: [
      [0, 1],
      [1, 0],
      [2, 1],
      [4, 0],
      [6, 1],
    ],
  });
  expect(notes).toEqual(["line 8: “airborne” is no value of contacts: write 0 or 1"]);
});

test("several sources of one control play it together: it is as far down as the one that is furthest", () => {
  const by = mapping({ sort: "frames", controls: { Key: "leap", Pad: "leap" }, below: { Stick: "leap" } });
  const { take } = readTable("Key,Pad,Stick\n0,0,0\n1,0,0\n1,1,0\n0,0.5,0\n0,0,-0.25\n0,0,1\n", by);
  expect(take.lanes).toEqual({
    leap: [
      [1, 1],
      [3, 0.5],
      [4, 0.25],
      [5, 0],
    ],
  });
});

test("an unrecognised cell is reported with its line, an unknown source once, and the rest is read", () => {
  const { take, notes } = readTable(
    [
      "at,what,how",
      "1,leap,1",
      "x,leap,0",
      "5,leap,0",
      "4,leap,1",
      "6,wheel,1",
      "7,wheel,0",
      "8,leap,9",
    ].join("\n"),
    CHANGES,
  );
  expect(take.lanes).toEqual({
    leap: [
      [1, 1],
      [5, 0],
    ],
  });
  expect(notes).toEqual([
    "line 3: “x” is no time",
    "line 5: leap goes back in time, to 4 frames from 5",
    "line 8: “9” is no value of leap: write 0 to 1, down or up",
    "line 6: “wheel” plays no control here; 2 values were left out",
  ]);
  const many = readTable(
    ["at,what,how", ...Array.from({ length: 50 }, () => "x,leap,1")].join("\n"),
    CHANGES,
  );
  expect(many.notes.length).toBe(21);
  expect(many.notes.at(-1)).toBe("and 30 more places like these");
});

test("a missing column is a fault that names the existing ones", () => {
  const begun = beginTable(CHANGES, ["time", "what", "how"]);
  expect(begun.ok || begun.issues).toMatchObject([
    { code: "unknown-id", facts: { what: "column", id: "at", hint: "write one of time, what, how" } },
  ]);
});

test("a take exported as a waveform is imported with the same events", () => {
  const { program, trace, events } = traceOf(TAKE);
  const text = writeVcd(program, trace, TAKE);
  const by = mapping({
    sort: "dump",
    controls: Object.fromEntries(KIT.controls.map(({ id }) => [`controls.${id}`, id])),
  });
  const read = readDump(by, text, NAMED);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  expect(read.value.take.frames).toBe(TAKE.frames);
  expect(traceOf(read.value.take).events).toEqual(events);
  expect(read.value.notes.join("\n")).toMatch(/#0: “gates\.footing” plays no control here/);
});

test("a source shows the moves that a game performed: where it rises, and in changes on each row that is not 0", () => {
  const performs = { hopped: "hop", hopped_too: "hop", sprung: "spring" };
  const frames = readTable(
    "leap,hopped,hopped_too,sprung\n1,0,0,0\n1,1,1,0\n0,1,0,0\n0,0,1,0\n0,3,0,0\n",
    mapping({ sort: "frames", controls: { leap: "leap" }, performs }),
  );
  expect(frames.notes).toEqual([]);
  expect(frames.take).toMatchObject({ did: { hop: [1, 3, 4], spring: [] }, didOf: "listed" });
  expect("stage" in frames.take).toBe(false);
  expect(parseTake(frames.take).ok).toBe(true);
  const changes = readTable(
    "at,what,how\n3,hopped,1\n3,hopped,1\n9,hopped,1\n8,hopped,1\n12,hopped,0\n12,leap,1\n",
    {
      ...CHANGES,
      unit: "frames",
      controls: { leap: "leap" },
      performs,
    },
  );
  expect(changes.take.did).toEqual({ hop: [3, 9], spring: [] });
  expect(changes.notes).toEqual(["line 5: hopped goes back in time, to 8 frames from 9"]);
  const { program, trace } = traceOf(TAKE);
  const dump = readDump(
    mapping({ sort: "dump", controls: { "controls.leap": "leap" }, performs: { "controls.leap": "hop" } }),
    writeVcd(program, trace, TAKE),
    NAMED,
  );
  const presses = TAKE.lanes.leap!.flatMap(([x, value]) => (value > 0 ? [x] : []));
  expect(dump.ok && dump.value.take.did).toEqual({ hop: presses });
});

test("mappings are guessed from names, ids and keys", () => {
  const names = ["leap", "Leap", "input.LEAP", "Space", "wheel"];
  expect([...guessControls(KIT, names)]).toEqual(names.slice(0, 4).map(name => [name, "leap"]));
  expect(guessTableMapping(KIT, ["time_ms", "button", "value"])).toMatchObject({
    sort: "changes",
    time: "time_ms",
    unit: "ms",
    control: "button",
    value: "value",
  });
  expect(guessTableMapping(KIT, ["frame", "Leap", "Right", "mood"])).toMatchObject({
    sort: "frames",
    time: "frame",
    unit: "frames",
    controls: { Leap: "leap", Right: "right" },
  });
  const unitOf = (name: string, ...times: readonly string[]) =>
    guessTableMapping(
      KIT,
      [name, "Leap"],
      times.map(time => [time, "0"]),
    ).unit;
  expect(
    ["Time (s)", "t [ms]", "time_us", "timeMs", "t_ns", "seconds", "Frame", "tick"].map(name => unitOf(name)),
  ).toEqual(["s", "ms", "us", "ms", "ns", "s", "frames", "frames"]);
  // Without a unit in its name, a row per frame shows it: frames of a sixtieth of a second, at the rate of the kit or nearly.
  expect(unitOf("time", "0", "0,0167", "0,0333")).toBe("s");
  expect(unitOf("time", "100", "116", "133")).toBe("ms");
  expect(unitOf("timestamp", "5", "6", "7")).toBe("frames");
  expect(unitOf("timestamp", "16000", "32667")).toBe("us");
  expect(unitOf("t", "0.0", "0.0069")).toBe("s");
  expect(unitOf("time")).toBe("s");
  const changed = (name: string, times: readonly string[]) =>
    guessTableMapping(
      KIT,
      [name, "button", "value"],
      times.map(time => [time, "Leap", "1"]),
    ).unit;
  expect([
    changed("timestamp", ["1", "7"]),
    changed("time at", ["1.5", "7"]),
    changed("time at", ["1", "7"]),
  ]).toEqual(["s", "s", "frames"]);
  expect(guessDumpMapping(KIT, ["top.pad.leap", "top.clk"]).controls).toEqual({ "top.pad.leap": "leap" });
});

test("names with words beside the control or gate are matched, but not in place of one without them", () => {
  const matched = (...sources: readonly string[]) => Object.fromEntries(guessControls(KIT, sources));
  for (const name of ["btn_leap", "LeapPressed", "leap key", "is_leap_held", "LEAP_DOWN", "pad/leapInput"])
    expect(matched(name), name).toEqual({ [name]: "leap" });
  expect(matched("leap_pressed", "leap_held", "right_button")).toEqual({
    leap_pressed: "leap",
    right_button: "right",
  });
  expect(matched("leap_pressed", "leap")).toEqual({ leap: "leap" });
  expect(matched("pressed", "key", "")).toEqual({});
  const [first, ...others] = KIT.controls;
  const bound = { ...KIT, controls: [{ ...first!, bindings: [["pad:7"], ["mouse:0"]] }, ...others] };
  for (const name of ["RightTrigger", "right_trigger", "leftClick"])
    expect([...guessControls(bound, [name])], name).toEqual([[name, first!.id]]);
  const grounded = { ...KIT, gates: [{ id: "g", name: "Grounded" }] };
  expect([...guessGates(grounded, ["is_grounded", "isGroundedNow"])]).toEqual([["is_grounded", "g"]]);
  const ground = { ...KIT, gates: [{ id: "g", name: "On the ground" }] };
  expect([...guessGates(ground, ["is_grounded", "round"])]).toEqual([["is_grounded", "g"]]);
});

test("a table with frames and their times has the rate of its game, not that of the kit", () => {
  const rateOf = (rateHz: number, head: string, format: (seconds: number) => string, stallAt = Infinity) =>
    guessTableMapping(
      KIT,
      ["frame", head, "Leap"],
      Array.from({ length: 200 }, (_, k) => [String(k), format(k / rateHz + (k > stallAt ? 0.7 : 0)), "0"]),
    ).rate;
  const inMs = (seconds: number) => String(Math.round(seconds * 1000));
  expect([30, 60, 120, 144, 240].map(rate => rateOf(rate, "time_ms", inMs))).toEqual([30, 60, 120, 144, 240]);
  expect(rateOf(144, "time_s", seconds => seconds.toFixed(4), 100)).toBe(144);
  expect(rateOf(144, "time", seconds => seconds.toFixed(3))).toBe(144);
  expect(rateOf(144, "mood", inMs)).toBe(KIT.rate);
  expect(rateOf(144, "time_ms", () => "0")).toBe(KIT.rate);
  expect(rateOf(5000, "time_us", seconds => String(seconds * 1e6))).toBe(KIT.rate);
});

test("times of a clock, with a date or without, are read in seconds from the first row", () => {
  const times = [0, 100, 2500, 61_017].map(ms => new Date(Date.UTC(2026, 10, 30, 23, 59, 59, 900) + ms));
  const written = [
    times.map(time => time.toISOString()),
    times.map(time => time.toISOString().replace("T", " ").replace(".", ",").replace("Z", "+01:00")),
  ];
  for (const list of written) {
    const rows = list.map((time, k) => [time, "leap", String((k + 1) % 2)]);
    const guessed = guessTableMapping(KIT, ["timestamp", "button", "value"], rows);
    expect(guessed).toMatchObject({ sort: "changes", unit: "s", start: "first-row" });
    const text = Papa.unparse([["timestamp", "button", "value"], ...rows]);
    const { take, notes } = readTable(text, { ...guessed, controls: asIs });
    expect(notes).toEqual([]);
    expect(take.lanes.leap).toEqual([
      [0, 1],
      [6, 0],
      [150, 1],
      [3661, 0],
    ]);
  }
  expect(["1:02:03.5", "02:03,25", "2:03", "1:2", "12:3x", ""].map(cell => readClock(cell)?.seconds)).toEqual(
    [3723.5, 123.25, 123, undefined, undefined, undefined],
  );
});

test("a table of changes is recognised by its cells where its columns have other names", () => {
  const head = ["t_ms", "what", "how"];
  const rows = [
    ["0", "leap", "down"],
    ["90", "leap", "up"],
    ["95", "lamp", "1"],
  ];
  expect(guessTableMapping(KIT, head, rows)).toMatchObject({
    ...{ sort: "changes", time: "t_ms", unit: "ms", control: "what", value: "how" },
  });
  expect(guessTableMapping(KIT, head, [["0", "lamp", "1"]])).toMatchObject({ sort: "frames", controls: {} });
  // Columns named like those of a table of changes, with numbers in them, are columns of frames.
  expect(guessTableMapping(KIT, ["frame", "action", "state", "leap"], [["0", "0", "1", "1"]])).toMatchObject({
    sort: "frames",
    controls: { leap: "leap" },
  });
});

test("no table makes the reader throw, and every result is a take", () => {
  const cell = fc.oneof(
    fc.string({ maxLength: 5 }),
    fc.constantFrom("1", "0", "leap", "-3", "1e9", "NaN", "Infinity", "down"),
  );
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { maxLength: 4 }), { maxLength: 12 }),
      fc.constantFrom("changes", "frames"),
      (rows, sort) => {
        const begun = beginTable(
          sort === "changes" ? CHANGES : mapping({ sort: "frames", controls: { what: "leap" } }),
          ["at", "what", "how"],
        );
        if (!begun.ok) throw new Error("the head is right");
        rows.forEach((row, k) => begun.value.row(row, k + 2));
        expect(parseTake(mustRead(begun.value.finish(NAMED)).take).ok).toBe(true);
      },
    ),
  );
});

test("a cancelled table is not mistaken for a complete one", async () => {
  const rows = Array.from({ length: 40_000 }, (_, k) => `${k},leap,${k % 2}`).join("\n");
  const off = new Error("called off");
  const reading = parseTable(
    Readable.from([`at,what,how\n${rows}`]),
    new Uint8Array(),
    feedTable(CHANGES),
    () => Promise.reject(off),
  );
  await expect(reading).rejects.toBe(off);
});

test("a line before the header names the separator, which commas in its numbers cannot change", async () => {
  const text = "sep=;\r\nat;what;how\r\n1,5;leap;0,25\r\n2,5;leap;2\r\n3,5;leap;0\r\n";
  expect(glanceAtTable(text, 2)).toEqual([
    ["at", "what", "how"],
    ["1,5", "leap", "0,25"],
    ["2,5", "leap", "2"],
  ]);
  const feed = feedTable(CHANGES);
  await parseTable(Readable.from([text]), new TextEncoder().encode(text).subarray(0, TABLE_HEAD_BYTES), feed);
  const { take, notes } = mustRead(feed.finish(NAMED));
  expect(take.lanes).toEqual({
    leap: [
      [1.5, 0.25],
      [3.5, 0],
    ],
  });
  expect(notes[0]).toMatch(/^line 4: “2” is no value/);
  expect(glanceAtTable("at;what\n1;leap\n2;leap\n", 1)).toEqual([
    ["at", "what"],
    ["1", "leap"],
  ]);
});

test("remarks before the header are skipped, and a header may be one itself", async () => {
  const table = "frame,leap\n0,0\n1,1\n2,x\n";
  const by = mapping({ sort: "frames", time: "frame", controls: { leap: "leap" } });
  for (const [before, line] of [
    ["# build 7\n# by Ann, on a pad, at home\n\n", 7],
    ["", 4],
  ] as const) {
    const text = before + table;
    expect(glanceAtTable(text, 2)).toEqual([
      ["frame", "leap"],
      ["0", "0"],
      ["1", "1"],
    ]);
    const feed = feedTable(by);
    await parseTable(Readable.from([text]), new Uint8Array(), feed);
    const { take, notes } = mustRead(feed.finish(NAMED));
    expect(take.lanes).toEqual({ leap: [[1, 1]] });
    expect(notes).toEqual([`line ${line}: “x” is no value of leap: write 0 to 1, down or up`]);
  }
  expect(glanceAtTable(`# ${table}`, 1)).toEqual([
    ["frame", "leap"],
    ["0", "0"],
  ]);
  expect(readTable(`# ${table}`, by).take.lanes).toEqual({ leap: [[1, 1]] });
  expect(glanceAtTable("#,leap\n0,1\n", 1)[0]).toEqual(["#", "leap"]);
  expect(glanceAtTable("# nothing but this\n", 1)).toEqual([]);
});

test("a source gives the speed of the game: as a factor, in percent, or by being stopped; several are multiplied", () => {
  const rows = "leap,scale,freeze\n1,1,0\n1,0.5,0\n1,0.5,1\n0,2,0\n0,5,0\n0,-1,0\n0,1,0\n";
  const by = mapping({
    sort: "frames",
    controls: { leap: "leap" },
    speed: { scale: "times", freeze: "stops" },
  });
  const { take, notes } = readTable(rows, by);
  expect(take.speed).toEqual([
    [1, 50],
    [2, 0],
    [3, 200],
    [6, 100],
  ]);
  expect(notes).toEqual([
    "line 6: “5” is no value of scale: write 0 to 4, 1 for full speed",
    "line 7: “-1” is no value of scale: write 0 to 4, 1 for full speed",
  ]);
  expect(parseTake(take).ok).toBe(true);
  const inPercent = readTable(
    "at,what,how\n3,speed,25\n9,speed,100\n9,leap,1\n",
    mapping({ ...CHANGES, controls: { leap: "leap" }, speed: { speed: "percent" } }),
  );
  expect(inPercent.take.speed).toEqual([
    [3, 25],
    [9, 100],
  ]);
  expect(parseMapping({ ...by, speed: { scale: "fast" } }).ok).toBe(false);
  const named = [
    "time_scale",
    "TimeScale",
    "game speed",
    "hitstop",
    "is_frozen",
    "speed",
    "scale",
    "walk_speed",
  ];
  expect([...guessSpeeds(named, source => (source === "game speed" ? 100 : 1))]).toEqual([
    ["time_scale", "times"],
    ["TimeScale", "times"],
    ["game speed", "percent"],
    ["hitstop", "stops"],
    ["is_frozen", "stops"],
  ]);
});

test("each word in a column of words is a source: the state of a character, or several buttons", () => {
  const head = ["frame", "state", "buttons", "leap"];
  const rows = [
    ["0", "stand", "", "0"],
    ["1", "hop", "Brace", "1"],
    ["2", "hop", "Brace+Right", "1"],
    ["3", "stand", "Right", "0"],
  ];
  const guessed = guessTableMapping(KIT, head, rows);
  expect(guessed.words).toEqual({ state: ["stand", "hop"], buttons: ["Brace", "Right"] });
  const table = Papa.unparse([head, ...rows], { newline: "\n" });
  const by = {
    ...guessed,
    controls: { ...guessed.controls, "buttons: Brace": "brace", "buttons: Right": "right" },
    performs: { "state: hop": "hop" },
  };
  const { take, notes } = readTable(table, by);
  expect(notes).toEqual([]);
  expect(take).toMatchObject({
    frames: 4,
    lanes: {
      leap: [
        [1, 1],
        [3, 0],
      ],
      brace: [
        [1, 1],
        [3, 0],
      ],
      right: [[2, 1]],
    },
    did: { hop: [1] },
  });
  const wordsOf = (...cells: readonly string[]) =>
    guessTableMapping(
      KIT,
      ["a"],
      cells.map(cell => [cell]),
    ).words;
  expect([
    wordsOf("0", "x"),
    wordsOf("down", "up"),
    wordsOf("down", "locked"),
    wordsOf("0:01.5", ""),
  ]).toEqual([undefined, undefined, { a: ["down", "locked"] }, undefined]);
  // A word that was not known is reported, if others of its column are mapped.
  const later = readTable(`${table}\n4,fall,Wave,0\n5,fall,Wave|Right,0\n6,stand,,0`, by);
  expect(later.notes).toEqual([
    "line 6: “state: fall” plays no control here; 1 value was left out",
    "line 6: “buttons: Wave” plays no control here; 2 values were left out",
  ]);
  expect(later.strangers).toEqual(["state: fall", "buttons: Wave"]);
  expect(wordsOf(...Array.from({ length: 50 }, (_, k) => `remark ${k}`))).toBeUndefined();
  expect([wordsOf("w".repeat(197)), wordsOf("w".repeat(198))]).toEqual([{ a: ["w".repeat(197)] }, undefined]);
  // Only as many unknown words are listed as one would map, and none that a mapping may not have.
  const strange = Array.from({ length: 300 }, (_, k) => `${k},${k === 7 ? "w".repeat(300) : `x${k}`},,0`);
  const listed = readTable(`${table}\n${strange.join("\n")}`, by).strangers;
  expect(listed).toHaveLength(200);
  expect(listed.slice(6, 8)).toEqual(["state: x6", "state: x8"]);
  expect(
    parseMapping({ ...by, words: { state: listed.map(source => source.slice("state: ".length)) } }).ok,
  ).toBe(true);
});
