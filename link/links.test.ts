import fc from "fast-check";
import { expect, test } from "vitest";
import { evaluate, formatTrace, type Kit } from "#core";
import { anyKit, anyTake } from "../core/tests/arbitraries";
import { assertUntil } from "../core/tests/assertUntil";
import { mustCompile, sketchKit } from "../core/tests/strips";
import { createLinkedTake, parseCode, type GameFrame, type LinkEvent } from ".";
import { createTalk, drawFrames, ELSEWHERE, type Message, type TestPeer } from "./tests/talk";

const HOP: Kit = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
  moves: [
    {
      id: "hop",
      name: "Hop",
      pattern: "press",
      needs: [{ gate: "ground", coyote: "2f" }],
      buffer: "3f",
    },
  ],
});
const withBuffer = (buffer: string): Kit => ({ ...HOP, moves: [{ ...HOP.moves![0]!, buffer }] });

const performedOf = (peer: TestPeer) =>
  peer
    .of("events")
    .flatMap(({ events }) => events as LinkEvent[])
    .filter(({ kind }) => kind === "performed")
    .map(({ f }) => f);

const faultOf = (peer: TestPeer) => {
  const fault = peer.of("fault").at(-1);
  return [fault?.code, fault?.at];
};

const framesOf = (host: TestPeer) => host.of("batch").flatMap(({ frames }) => frames as GameFrame[]);

function play(talk: ReturnType<typeof createTalk>, game: TestPeer, frames: readonly GameFrame[]): void {
  for (const frame of frames) {
    game.say({ t: "frame", ...frame });
    talk.pass(16);
  }
}

test("a link is opened, joined by its code as a person types it, and welcomes the game with its kit", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{2}$/);
  const game = talk.join(` ${code.toLowerCase().replace("-", "")}`, { player: "Ines", device: "pad" });
  expect(game.got).toEqual([
    {
      t: "welcome",
      kit: HOP,
      revision: 1,
      rate: 60,
      controls: ["a"],
      gates: ["ground"],
      moves: ["hop"],
    },
  ]);
  expect(host.got.slice(1)).toEqual([
    { t: "joined", name: "Game", rate: 60, asks: true, player: "Ines", device: "pad" },
  ]);
});

test("a code is read whatever its case and groups, with letters that look like digits", () => {
  expect(["kq4t7m", "KQ4T-7M", " kq4t 7m "].map(parseCode)).toEqual(Array(3).fill("KQ4T-7M"));
  expect([parseCode("OIL000"), parseCode("KQ4T-7"), parseCode("KQ4T-7U"), parseCode("")]).toEqual([
    "0110-00",
    undefined,
    undefined,
    undefined,
  ]);
});

test("every frame that is sent gets its events, and a buffered press is performed when its gate opens", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  const frames = drawFrames({ a: "..#......" }, { ground: ".....###." });
  play(talk, game, frames);
  expect(game.of("events").map(({ f }) => f)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
  expect(performedOf(game)).toEqual([5]);
  talk.pass(20);
  expect(framesOf(host)).toEqual(frames);
  expect(host.of("batch").flatMap(({ events }) => events as LinkEvent[])).toEqual(
    game.of("events").flatMap(({ events }) => events),
  );
});

test("a jump passes over frames without change, and reports those on which something happened", () => {
  const talk = createTalk();
  const game = talk.join(talk.open(HOP).code);
  game.say({ t: "frame", f: 2, set: { a: true } });
  game.say({ t: "frame", f: 600 });
  // The press is remembered for 3 frames.
  expect(
    game.of("events").map(({ f, events }) => [f, (events as LinkEvent[]).map(({ kind }) => kind)]),
  ).toEqual([
    [2, ["fired"]],
    [5, ["lost"]],
    [600, []],
  ]);
  game.say({ t: "frame", f: 1200 });
  expect(faultOf(game)).toEqual([undefined, undefined]);
  game.say({ t: "frame", f: 1801 });
  expect(faultOf(game)).toEqual(["order", "f"]);
  game.say({ t: "frame", f: 1200 });
  expect(game.of("fault").length).toBe(2);
});

test("a fault leaves its frame out as if nothing had changed on it, and is answered with its path", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  const wrong: [object, string, string][] = [
    [{ f: 0, set: { b: true } }, "shape", "set.b"],
    [{ f: 1, set: { a: 1.5 } }, "bounds", "set.a"],
    [{ f: 2, set: { a: "down" } }, "shape", "set.a"],
    [{ f: 3, gates: { ground: 1 } }, "shape", "gates.ground"],
    [{ f: 4, speed: 401 }, "bounds", "speed"],
    [{ f: 5, sets: {} }, "shape", "sets"],
    [{ f: 6, did: [{ kind: "lost", id: "hop" }] }, "shape", "did[0].kind"],
    [{ f: 7, gates: { floor: true } }, "shape", "gates.floor"],
  ];
  for (const [frame, ...expected] of wrong) {
    game.say({ t: "frame", ...frame });
    expect(faultOf(game)).toEqual(expected);
  }
  expect(game.of("events").map(({ events }) => events)).toEqual(wrong.map(() => []));
  game.say({ t: "frame", f: "8" });
  expect(faultOf(game)).toEqual(["shape", "f"]);
  game.say({ t: "frames", frames: [{ f: 8 }, { f: 9, speed: -1 }, { f: 10, gates: { ground: true } }] });
  expect(faultOf(game)).toEqual(["bounds", "frames[1].speed"]);
  expect(game.of("events").map(({ f }) => f)).toEqual([...Array(11).keys()]);
  talk.pass(20);
  expect(framesOf(host).slice(7)).toEqual([{ f: 7 }, { f: 8 }, { f: 9 }, { f: 10, gates: { ground: true } }]);
  game.say({ t: "frames", frames: Array.from({ length: 241 }, (_, n) => ({ f: 11 + n })) });
  expect(faultOf(game)).toEqual(["bounds", "frames"]);
  expect(game.closed).toBeUndefined();
});

test("more than twenty faults in a minute close the connection and end the take", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  for (let n = 0; n < 19; n++) game.say("no JSON");
  talk.pass(61_000);
  for (let n = 0; n < 19; n++) game.say({ t: "hello" });
  expect(game.closed).toBeUndefined();
  game.say([]);
  expect(game.closed).toBe(1008);
  expect(host.got.at(-1)).toEqual({ t: "left", why: "fault" });
  game.say({ t: "frame", f: 0 });
  expect(game.of("events")).toEqual([]);
});

test("a wrong version, a second game, and a rate other than the kit's are refused; the latter only if it asks", () => {
  const talk = createTalk();
  const { code } = talk.open(HOP);
  const refused = (more: object) => faultOf(talk.join(code, more));
  expect(refused({ version: 2 })).toEqual(["version", "version"]);
  expect(refused({ rate: 30 })).toEqual(["rate", "rate"]);
  expect(refused({ rate: 0, asks: false })).toEqual(["rate", "rate"]);
  expect(refused({ rate: 1000, asks: false })).toEqual([undefined, undefined]);
  expect(refused({})).toEqual(["taken", undefined]);
});

test("five wrong codes in a minute shut the door to an address for a minute, also for the right code", () => {
  const talk = createTalk();
  const { code } = talk.open(HOP);
  for (let n = 0; n < 5; n++) expect(faultOf(talk.join("000000", {}, ELSEWHERE))).toEqual(["code", "code"]);
  const shut = talk.join(code, {}, ELSEWHERE);
  expect([faultOf(shut), shut.closed]).toEqual([["code", "code"], 1008]);
  expect(talk.join(code).of("welcome").length).toBe(1);
  talk.pass(60_001);
  expect(faultOf(talk.join(code, {}, ELSEWHERE))).toEqual(["taken", undefined]);
});

test("another origin may join, and can neither open nor follow", () => {
  const talk = createTalk();
  const { code } = talk.open(HOP);
  for (const message of [
    { t: "open", kit: HOP, revision: 1 },
    { t: "follow", code, from: 0 },
    { t: "edit", kit: HOP, revision: 2 },
    { t: "close" },
  ]) {
    const peer = talk.connect(ELSEWHERE);
    peer.say(message);
    expect(peer.got).toEqual([expect.objectContaining({ t: "fault", code: "shape", at: "t" })]);
  }
  expect(talk.join(code, {}, ELSEWHERE).of("welcome").length).toBe(1);
  expect(talk.links.size).toBe(1);
});

test("a message of a game has 64 KiB at most, counted in bytes", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const [exact, over] = [talk.join(code), talk.join(talk.open(HOP).code)];
  const padded = (bytes: number) => {
    const text = `{"t":"frame","f":0,"set":{"ä":1}}`;
    return `${text}${" ".repeat(bytes - text.length - 1)}`;
  };
  exact.say(padded(64 * 1024));
  expect([exact.closed, faultOf(exact)]).toEqual([undefined, ["shape", "set.ä"]]);
  over.say(padded(64 * 1024 + 1));
  expect(over.closed).toBe(1009);
  expect(host.of("left")).toEqual([]);
});

test("an edit runs through what was played under the new rules, and is in force from the next frame", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  // The press waits when the longer buffer comes: under the old rules it would be lost on frame 5.
  play(talk, game, drawFrames({ a: "..#." }, { ground: "...." }));
  host.say({ t: "edit", revision: 2, kit: withBuffer("9f") });
  const kit = withBuffer("9f");
  expect(game.got.at(-1)).toEqual({ t: "kit", revision: 2, from: 4, kit });
  expect(host.of("kit")).toEqual([{ t: "kit", revision: 2, from: 4, kit }]);
  game.say({ t: "frame", f: 10, gates: { ground: true } });
  expect(performedOf(game)).toEqual([10]);
  host.say({ t: "edit", revision: 2, kit: HOP });
  expect(faultOf(host)).toEqual(["order", "revision"]);
  host.say({ t: "edit", revision: 3, kit: { ...HOP, moves: [{ ...HOP.moves![0]!, buffer: "soon" }] } });
  expect(faultOf(host)).toEqual(["shape", "kit.moves[0].buffer"]);
  host.say({ t: "edit", revision: 3, kit: { ...HOP, rate: 50 } });
  expect(faultOf(host)).toEqual(["rate", "kit.rate"]);
});

test("a control that an edit takes away is no fault of a game that still sends it", () => {
  const talk = createTalk();
  const two = sketchKit("ab", { ...HOP, controls: sketchKit("ab", {}).controls });
  const { host, code } = talk.open(two);
  const game = talk.join(code);
  host.say({ t: "edit", revision: 2, kit: HOP });
  game.say({ t: "frame", f: 0, set: { b: true } });
  expect(game.of("fault")).toEqual([]);
  talk.pass(20);
  expect(framesOf(host)).toEqual([{ f: 0, set: { b: true } }]);
});

test("a host that comes back follows from the frame it has; a take that ended meanwhile is not lost", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  play(talk, game, drawFrames({ a: "..#......." }, { ground: "....######" }));
  host.leave();
  play(talk, game, [{ f: 10 }, { f: 11, set: { a: true } }, { f: 12 }]);
  const back = talk.connect();
  back.say({ t: "follow", code: code.toLowerCase(), from: 10 });
  expect(back.got.slice(0, 3).map(({ t, take }) => [t, take])).toEqual([
    ["opened", 0],
    ["joined", undefined],
    ["kit", undefined],
  ]);
  expect(framesOf(back).map(({ f }) => f)).toEqual([10, 11, 12]);
  expect(back.of("batch").flatMap(({ events }) => (events as LinkEvent[]).map(({ f }) => f))).toEqual([
    11, 11,
  ]);
  game.say({ t: "end" });
  back.leave();
  play(talk, game, [{ f: 0 }, { f: 1 }]);
  const third = talk.connect();
  third.say({ t: "follow", code, from: 11, take: 0 });
  const seen = third.got.slice(2).map(message => message.t + String(message.from ?? message.why));
  expect(seen.filter(text => !text.startsWith("kit"))).toEqual(["batch11", "batch12", "leftend", "batch0"]);
});

test("hosts get the round trip of a game that plays", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  game.pulse(1.234);
  host.pulse(5);
  expect(host.of("pulse")).toEqual([{ t: "pulse", ms: 1.2 }]);
});

test("a link without a host for ten minutes ends; so does one that its host closes", () => {
  const talk = createTalk();
  const { host, code } = talk.open(HOP);
  const game = talk.join(code);
  host.leave();
  talk.pass(9 * 60_000);
  expect(talk.links.size).toBe(1);
  talk.pass(60_001);
  expect([talk.links.size, game.closed, faultOf(game)[0]]).toEqual([0, 1000, "code"]);
  const again = talk.open(HOP, { code });
  expect(again.code).toBe(code);
  expect(faultOf(talk.open(HOP, { code }).host)).toEqual(["taken", "code"]);
  again.host.say({ t: "close" });
  expect([talk.links.size, again.host.closed]).toEqual([0, 1000]);
});

test("hosts get batches at most 60 times a second, with nothing left out", () => {
  const talk = createTalk();
  const { host, code } = talk.open({ ...HOP, rate: 1000 });
  const game = talk.join(code, { rate: 1000, asks: false });
  for (let f = 0; f < 2000; f++) {
    game.say({ t: "frame", f });
    talk.pass(1);
  }
  talk.pass(20);
  expect(framesOf(host).map(({ f }) => f)).toEqual([...Array(2000).keys()]);
  expect(host.of("batch").length).toBeLessThanOrEqual(121);
  expect(host.of("batch").length).toBeGreaterThan(100);
});

const anyRate = fc.constantFrom(30, 60, 60, 144, 1000);

/** Plays a random take as a game of a rate, with edits between, and compares events with runs of the take it leaves. */
function compareWithRuns(
  kits: readonly Kit[],
  frames: readonly GameFrame[],
  rate: number,
  editEvery: number,
): number {
  const talk = createTalk();
  const { host, code } = talk.open(kits[0]!);
  const game = talk.join(code, { rate, asks: false });
  expect(game.of("fault")).toEqual([]);
  frames.forEach((frame, n) => {
    game.say({ t: "frame", ...frame });
    if (n % editEvery === editEvery - 1 && kits.length > 1) {
      const revision = 1 + Math.ceil((n + 1) / editEvery);
      host.say({ t: "edit", revision, kit: kits[(revision - 1) % kits.length] });
      expect(host.of("fault")).toEqual([]);
    }
    talk.pass(5);
  });
  talk.pass(20);
  const taken = createLinkedTake({ rate });
  framesOf(host).forEach(taken.add);
  const take = taken.toTake({ id: "linked", name: "Linked" });
  expect(take.frames).toBe(frames.at(-1)!.f + 1);
  const forces = [
    { revision: 1, from: 0, kit: kits[0]! },
    ...(host.of("kit") as unknown as { from: number; kit: Kit }[]),
  ];
  const sent = host.of("batch").flatMap(({ events }) => events as LinkEvent[]);
  const kitRate = kits[0]!.rate;
  const land = (f: number) => Math.max(0, Math.ceil((f * kitRate) / rate - 1e-6));
  const expected = forces.flatMap(({ from, kit }, n) => {
    const program = mustCompile(kit);
    const to = land(forces[n + 1]?.from ?? take.frames);
    return formatTrace(program, evaluate(program, take)).events.filter(({ f }) => f >= land(from) && f < to);
  });
  expect(sent).toEqual(expected);
  return sent.length;
}

test("the take that a link leaves, under the rules in force, gives the events that were sent", () => {
  let events = 0;
  let edited = 0;
  fc.assert(
    fc.property(
      anyKit,
      anyKit,
      anyTake,
      anyRate,
      fc.integer({ min: 5, max: 60 }),
      (one, two, take, rate, every) => {
        const isEdited = one.rate === two.rate;
        const lanes: [number, "set" | "gates" | "speed", string, number][] = [
          ...Object.entries(take.lanes).flatMap(([id, lane]) =>
            lane.map(([x, v]) => [x, "set", id, v] as const),
          ),
          ...Object.entries(take.gates ?? {}).flatMap(([id, lane]) =>
            lane.map(([x, v]) => [x, "gates", id, v] as const),
          ),
          ...(take.speed ?? []).map(([x, v]) => [x, "speed", "", v] as const),
        ].map(([x, part, id, v]) => [Math.ceil(x), part, id, v]);
        const ids = (kit: Kit) => [
          ...kit.controls.map(({ id }) => id),
          ...(kit.gates ?? []).map(({ id }) => id),
        ];
        const known = new Set(ids(one));
        const changed = new Map<
          number,
          { set: Record<string, number>; gates: Record<string, boolean>; speed?: number }
        >();
        for (const [f, part, id, value] of lanes) {
          if (f >= take.frames || (part !== "speed" && !known.has(id))) continue;
          const frame = changed.get(f) ?? { set: {}, gates: {} };
          if (part === "set") frame.set[id] = value;
          else if (part === "gates") frame.gates[id] = value === 1;
          else frame.speed = value;
          changed.set(f, frame);
        }
        const frames: GameFrame[] = Array.from({ length: take.frames }, (_, f) => ({ f, ...changed.get(f) }));
        const sparse = frames.filter(({ f }) => changed.has(f) || f % 7 === 0 || f === take.frames - 1);
        events += compareWithRuns(isEdited ? [one, two] : [one], sparse, rate, every);
        if (isEdited) edited++;
      },
    ),
    { numRuns: 60 },
  );
  expect([events > 100, edited > 20]).toEqual([true, true]);
});

const anyScrap: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(
    0,
    1,
    -1,
    true,
    false,
    null,
    "",
    "a",
    "ground",
    "performed",
    "open",
    1e300,
    0.5,
    "000000",
  ),
  fc.integer({ min: -3, max: 1300 }),
  fc.jsonValue(),
);
const anyPart = fc.oneof(
  {
    arbitrary: fc.dictionary(fc.constantFrom("a", "ground", "__proto__", "constructor", "b"), anyScrap),
    weight: 3,
  },
  { arbitrary: anyScrap, weight: 1 },
);
const anyFrame = fc.record(
  {
    f: fc.oneof(fc.nat(700), anyScrap),
    set: anyPart,
    gates: anyPart,
    speed: anyScrap,
    did: fc.array(anyPart, { maxLength: 2 }),
  },
  { requiredKeys: [] },
);

test("random messages never throw and never hang; the link still works for the next game", () => {
  const seen = new Set<string>();
  const sorts = ["events", "order", "shape", "bounds"];
  assertUntil(
    fc.property(
      fc.array(
        fc.oneof(
          fc.record({ t: fc.constant("frame"), more: anyFrame }).map(({ t, more }) => ({ t, ...more })),
          // Sound frames, of which two soon are out of order.
          fc.record({ t: fc.constant("frame"), f: fc.nat(700) }),
          fc.record({
            t: fc.constant("frames"),
            frames: fc.oneof(fc.array(anyFrame, { maxLength: 3 }), anyScrap),
          }),
          fc.record(
            {
              t: fc.constantFrom("open", "follow", "join", "edit", "close", "end", "toString"),
              code: anyScrap,
              kit: fc.oneof(fc.constant<unknown>(HOP), anyScrap),
              revision: anyScrap,
              from: anyScrap,
            },
            { requiredKeys: ["t"] },
          ),
          anyScrap,
        ),
        { maxLength: 8 },
      ),
      messages => {
        const talk = createTalk();
        const { host, code } = talk.open(HOP);
        const game = talk.join(code);
        for (const message of messages) {
          game.say(message);
          talk.connect().say(message);
        }
        for (const { t, code: reason } of game.got as (Message & { code?: string })[]) seen.add(reason ?? t);
        game.say({ t: "end" });
        game.leave();
        expect(talk.join(code).of("welcome").length).toBe(1);
        expect(host.closed).toBeUndefined();
      },
    ),
    { numRuns: 200 },
    () => sorts.every(sort => seen.has(sort)),
  );
  for (const sort of sorts) expect(seen).toContain(sort);
});
