import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import { parseMapping, parseTake, readTake, type Kit, type Mapping, type Take } from "#core";
import { writeVcd } from "#handover";
import { compileRules, runRules } from "#stage";
import {
  beginMapping,
  glanceAt,
  learnWords,
  listSigned,
  listSources,
  mapBelow,
  mapSource,
  previewOf,
  purposeOf,
  turnSort,
} from "./mapping";

const KIT = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")) as Kit;
const CHANGES =
  "time_ms,button,state\n0,Leap,pressed\n100,Leap,released\n150,wheel,pressed\n200,right,pressed\n";
const FRAMES = "Leap;Right;Camera\n0;1;0,5\n1;1;0,5\n0;0;0,5\n";

function begin(name: string, text: string, used: readonly Mapping[] = []) {
  const glance = glanceAt(name, text);
  return { glance, mapping: beginMapping(KIT, glance, used)! };
}

test("a mapping of a table of changes is guessed from its headers and names", () => {
  const { glance, mapping } = begin("a.csv", CHANGES);
  expect(mapping).toMatchObject({
    sort: "changes",
    time: "time_ms",
    unit: "ms",
    control: "button",
    value: "state",
    controls: { Leap: "leap", right: "right" },
  });
  expect(listSources(glance, mapping)).toEqual(["Leap", "wheel", "right"]);
  const preview = previewOf(glance, mapping);
  expect(preview).toMatchObject({
    take: {
      lanes: {
        leap: [
          [0, 1],
          [6, 0],
        ],
        right: [[12, 1]],
      },
    },
  });
  expect("notes" in preview && preview.notes).toEqual([
    "line 4: “wheel” plays no control here; 1 value was left out",
  ]);
  const { controls } = mapSource(mapSource(mapping, "wheel", "brace"), "Leap", undefined);
  expect(controls).toEqual({ wheel: "brace", right: "right" });
});

test("a table of frames with semicolons and decimal commas; switched to changes and back it is unchanged", () => {
  const { glance, mapping } = begin("a.csv", FRAMES);
  expect(mapping).toMatchObject({ sort: "frames", controls: { Leap: "leap", Right: "right" } });
  expect(listSources(glance, mapping)).toEqual(["Leap", "Right", "Camera"]);
  const turned = turnSort(KIT, glance, mapping, "changes");
  expect(turned).toMatchObject({ sort: "changes", time: "Leap", control: "Leap", value: "Right" });
  const { time: _time, ...rest } = turnSort(KIT, glance, turned, "frames");
  expect(turnSort(KIT, glance, mapping, "frames")).toBe(mapping);
  expect(rest.sort).toBe("frames");
  expect(previewOf(glance, mapping)).toMatchObject({
    take: {
      frames: 3,
      lanes: {
        leap: [
          [1, 1],
          [2, 0],
        ],
      },
    },
  });
});

test("values below 0 of a stick's axis play a second control, guessed from the names, in every sort of recording", () => {
  const lanes = {
    left: [
      [1, 0.5],
      [2, 0],
    ],
    right: [
      [0, 0.25],
      [1, 0],
      [2, 1],
    ],
  };
  const frames = "Leap,Move X\n0,0.25\n0,-0.5\n0,1\n";
  const changes = "frame,axis,value\n0,Move X,0.25\n1,Move X,-0.5\n2,Move X,1\n";
  const dump = `$timescale 1 ms $end
$var real 64 x move_x $end
$enddefinitions $end
#0
r0.25 x
#17
r-0.5 x
#33
r1 x
`;
  for (const [name, text] of [
    ["a.csv", frames],
    ["b.csv", changes],
    ["c.vcd", dump],
  ] as const) {
    const begun = begin(name, text);
    const { glance } = begun;
    const mapping = name === "b.csv" ? turnSort(KIT, glance, begun.mapping, "changes") : begun.mapping;
    const [source] = listSigned(glance, mapping);
    expect(mapping).toMatchObject({ controls: { [source!]: "right" }, below: { [source!]: "left" } });
    const preview = previewOf(glance, mapping);
    const found = "take" in preview ? preview.take.lanes : {};
    expect(
      Object.fromEntries(
        Object.entries(found).map(([id, lane]) => [id, lane.map(([x, v]) => [Math.round(x), v])]),
      ),
    ).toEqual(lanes);
    expect(parseMapping(JSON.parse(JSON.stringify(mapping)))).toMatchObject({ ok: true, value: mapping });
    const plain = mapBelow(mapping, source!, undefined);
    expect("below" in plain).toBe(false);
    const [note] = (previewOf(glance, plain) as { notes: readonly string[] }).notes;
    if (name !== "c.vcd") expect(note).toMatch(/“-0.5” is no value of Move X: .*, or map what is below 0$/);
    expect(listSigned(glance, plain)).toEqual([source]);
  }
  expect(listSigned(glanceAt("a.csv", FRAMES), begin("a.csv", FRAMES).mapping)).toEqual([]);
});

test("a column opens the gate of its name, and the take is judged by it in place of the stage", () => {
  const text = "Leap,Footing,Wall\n0,1,0\n1,1,0\n0,0.5,0\n0,0,1\n";
  const { glance, mapping } = begin("a.csv", text);
  expect(mapping).toMatchObject({ controls: { Leap: "leap" }, gates: { Footing: "footing" } });
  const takeOf = (by: Mapping, of = glance) => (previewOf(of, by) as { take: Take }).take;
  expect(takeOf(mapping)).toMatchObject({
    gates: {
      footing: [
        [0, 1],
        [3, 0],
      ],
    },
    stage: "none",
  });
  const walled = mapSource(mapping, "Wall", "footing", "gates");
  expect(walled.gates).toEqual({ Footing: "footing", Wall: "footing" });
  expect(parseMapping(JSON.parse(JSON.stringify(walled)))).toMatchObject({ ok: true, value: walled });
  // A source plays one thing: a control in place of its gate, or nothing.
  const turned = mapSource(mapping, "Footing", "brace");
  expect(turned).toMatchObject({ controls: { Leap: "leap", Footing: "brace" } });
  expect("gates" in turned).toBe(false);
  expect(mapSource(mapping, "Leap", "footing", "gates").controls).toEqual({});
  expect("gates" in mapSource(mapping, "Footing", undefined)).toBe(false);
  const tilting = mapBelow(turned, "Footing", "crouch");
  expect(mapSource(tilting, "Footing", "leap").below).toEqual({ Footing: "crouch" });
  expect("below" in mapSource(tilting, "Footing", "footing", "gates")).toBe(false);
  expect("stage" in takeOf(turned)).toBe(false);
  const changes = begin("b.csv", "frame,key,value\n0,Leap,1\n1,Footing,1\n3,Footing,0\n");
  expect(takeOf(changes.mapping, changes.glance)).toMatchObject({
    gates: {
      footing: [
        [1, 1],
        [3, 0],
      ],
    },
  });
  expect(begin("c.csv", text, [walled]).mapping).toBe(walled);
});

test("a column named like a move shows when the game performed it; a source has one use at a time", () => {
  const { glance, mapping } = begin("a.csv", "Leap,Hop,Footing\n0,0,1\n1,1,1\n0,0,1\n");
  expect(mapping).toMatchObject({
    controls: { Leap: "leap" },
    gates: { Footing: "footing" },
    performs: { Hop: "hop" },
  });
  expect(previewOf(glance, mapping)).toMatchObject({ take: { did: { hop: [1] }, didOf: "listed" } });
  expect(parseMapping(JSON.parse(JSON.stringify(mapping)))).toMatchObject({ ok: true, value: mapping });
  expect(["Leap", "Hop", "Footing", "other"].map(source => purposeOf(mapping, source))).toEqual([
    { use: "controls", id: "leap" },
    { use: "performs", id: "hop" },
    { use: "gates", id: "footing" },
    undefined,
  ]);
  const turned = mapSource(mapping, "Hop", "brace");
  expect(turned.controls).toEqual({ Leap: "leap", Hop: "brace" });
  expect("performs" in turned).toBe(false);
  expect(mapSource(turned, "Leap", "spring", "performs")).toMatchObject({
    controls: { Hop: "brace" },
    performs: { Leap: "spring" },
  });
});

test("a recording that begins late starts with its first row, also after its rows are taken for changes", () => {
  const { glance, mapping } = begin("a.csv", "time_s,Leap\n900,0\n900.5,1\n");
  expect(mapping).toMatchObject({ unit: "s", start: "first-row" });
  expect(previewOf(glance, mapping)).toMatchObject({ take: { frames: 31, lanes: { leap: [[30, 1]] } } });
  expect(turnSort(KIT, glance, mapping, "changes")).toMatchObject({ sort: "changes", start: "first-row" });
  const atZero = previewOf(glance, { ...mapping, start: "zero" });
  expect(atZero).toMatchObject({ take: { lanes: { leap: [[54_030, 1]] } } });
});

test("an earlier mapping that fits is used; one with missing columns is not", () => {
  const { mapping } = begin("a.csv", CHANGES);
  const known = mapSource(mapping, "wheel", "brace");
  expect(begin("b.csv", CHANGES, [known]).mapping).toBe(known);
  expect(begin("b.csv", CHANGES.replace("button", "key"), [known]).mapping).not.toBe(known);
  expect(begin("b.csv", FRAMES, [known]).mapping.sort).toBe("frames");
  // Nor one whose control, gate or move was deleted since, or has another id.
  for (const stale of [
    mapSource(mapping, "wheel", "gone"),
    mapSource(mapping, "wheel", "gone", "gates"),
    mapSource(mapping, "wheel", "gone", "performs"),
  ])
    expect(begin("b.csv", CHANGES, [stale, known]).mapping).toBe(known);
});

test("a dump is known by its name, and read by its signals", () => {
  const rules = compileRules(KIT);
  const take = parseTake(JSON.parse(readFileSync("demo/belfry-runner/1-clean-climb.json", "utf8")));
  if (!rules.ok || !take.ok) throw new Error("the demo must read");
  const { program } = rules.value;
  const dump = writeVcd(program, runRules(rules.value, readTake(program, take.value)).trace, take.value);
  const { glance, mapping } = begin("climb.VCD", dump);
  expect(mapping.controls).toMatchObject({ "controls.leap": "leap", "controls.right": "right" });
  const preview = previewOf(glance, mapping);
  if (!("take" in preview)) throw new Error(preview.reasons.join());
  const pressed = (lane: readonly (readonly [number, number])[] | undefined) =>
    lane?.filter(([, v]) => v > 0).length;
  expect(pressed(preview.take.lanes.leap)).toBe(pressed(take.value.lanes.leap));
});

test.each([
  ["nothing", "a.csv", ""],
  ["a head alone", "a.csv", "time,button\n"],
  ["no dump", "a.vcd", "hello\n"],
  ["no bytes of a dump", "a.vcd", ""],
])("%s is described in words", (_what, name, text) => {
  const { glance, mapping } = begin(name, text);
  expect(glance.sort === "broken" && glance.reasons[0]!.length > 10).toBe(true);
  expect(mapping).toBeUndefined();
});

test("columns named as no id may be, with a slash, a percent sign or a line break, have a mapping that can be stored", () => {
  for (const head of ["D-Pad/Up", "stick %", "a?b#c", '"two\nlines"', "a\\b"]) {
    const { glance, mapping } = begin("a.csv", `Leap,${head}\n0,1\n1,0\n`);
    const source = listSources(glance, mapping)[1]!;
    const mapped = mapSource(mapping, source, "crouch");
    expect(parseMapping(JSON.parse(JSON.stringify(mapped)))).toMatchObject({ ok: true, value: mapped });
    expect(previewOf(glance, mapped)).toMatchObject({
      take: {
        lanes: {
          crouch: [
            [0, 1],
            [1, 0],
          ],
        },
      },
    });
  }
});

test("any beginning of a file is previewed and mapped, or refused with a sentence; every mapping can be stored", () => {
  const word = fc.constantFrom(
    "time",
    "button",
    "state",
    "Leap",
    "0",
    "1",
    "0.5",
    "-1",
    "1e9",
    "down",
    '"',
    "#5",
    "$var",
    "$end",
    "",
  );
  const line = fc.array(word, { maxLength: 6 }).map(words => words.join(","));
  const table = fc.array(line, { maxLength: 12 }).map(lines => lines.join("\n"));
  let mapped = 0;
  let refused = 0;
  fc.assert(
    fc.property(
      fc.constantFrom("a.csv", "a.vcd", "a"),
      fc.oneof(table, fc.string({ maxLength: 200 })),
      (name, text) => {
        const { glance, mapping } = begin(name, text);
        if (glance.sort === "broken") {
          expect(glance.reasons.every(reason => reason.length > 0)).toBe(true);
          return void refused++;
        }
        mapped++;
        expect(parseMapping(JSON.parse(JSON.stringify(mapping))).ok).toBe(true);
        for (const turned of [
          mapping,
          turnSort(KIT, glance, mapping, "changes"),
          turnSort(KIT, glance, mapping, "frames"),
        ]) {
          const preview = previewOf(glance, turned);
          if ("take" in preview) expect(parseTake(preview.take).ok).toBe(true);
          else expect(preview.reasons.join("").length).toBeGreaterThan(0);
        }
      },
    ),
    { numRuns: 400 },
  );
  expect(Math.min(mapped, refused)).toBeGreaterThan(20);
});

test("a game's speed and the words of a column are guessed: moves and gates before controls", () => {
  const text =
    "frame,Leap,state,pad,time_scale,hit_stop\n0,0,Hop,Brace,1,0\n1,1,Footing,Brace+Right,0.5,1\n2,1,lost,,1,0\n";
  const { glance, mapping } = begin("a.csv", text);
  expect(mapping).toMatchObject({
    words: { state: ["Hop", "Footing", "lost"], pad: ["Brace", "Right"] },
    controls: { Leap: "leap", "pad: Brace": "brace", "pad: Right": "right" },
    gates: { "state: Footing": "footing" },
    performs: { "state: Hop": "hop" },
    speed: { time_scale: "times", hit_stop: "stops" },
  });
  expect(listSources(glance, mapping)).toEqual([
    ...["Leap", "state: Hop", "state: Footing", "state: lost"],
    ...["pad: Brace", "pad: Right", "time_scale", "hit_stop"],
  ]);
  const preview = previewOf(glance, mapping);
  expect(preview).toMatchObject({
    notes: [],
    take: {
      speed: [
        [1, 0],
        [2, 100],
      ],
      did: { hop: [0] },
    },
  });
  const changed = mapSource(mapping, "time_scale", "percent", "speed");
  expect(changed.speed).toEqual({ hit_stop: "stops", time_scale: "percent" });
  expect(purposeOf(changed, "time_scale")).toEqual({ use: "speed", id: "percent" });
  // The stored mapping reads the next table, of which the first rows lack a word.
  const next = glanceAt("b.csv", "frame,Leap,state,pad,time_scale,hit_stop\n0,0,Footing,,1,0\n");
  expect(beginMapping(KIT, next, [mapping])).toBe(mapping);
  expect(listSources(next, mapping)).toContain("state: Hop");
  const learned = learnWords(mapping, ["state: Spring", "else"]);
  expect(learned).toEqual({
    ...mapping,
    words: { ...mapping.words, state: ["Hop", "Footing", "lost", "Spring"] },
  });
  expect(learnWords({ ...mapping, sort: "changes", words: {} }, ["x"]).words).toEqual({});
});
