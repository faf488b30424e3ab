import fc from "fast-check";
import { expect, test } from "vitest";
import { formatTrace, parseTake, readTake, type Kit } from "#core";
import { compileRules, runRules, type Rules } from "#stage";
import { createLiveSession } from "./liveSession";
import { takeOf } from "./recording";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "live",
  name: "Live",
  rate: 60,
  controls: ["a", "b"].map(id => ({ id, name: id, bindings: [] })),
  gates: [{ id: "g", name: "G" }],
  patterns: [
    { id: "hold", name: "Hold", kind: "hold", control: "a", for: "6f", fire: "reach" },
    { id: "tap", name: "Tap", kind: "tap", control: "a", max: "4f" },
    { id: "press", name: "Press", kind: "press", control: "b" },
    { id: "release", name: "Release", kind: "release", control: "b" },
  ],
  moves: [
    {
      id: "hop",
      name: "Hop",
      pattern: "press",
      needs: [{ gate: "g", coyote: "3f" }],
      buffer: "5f",
      spends: ["g"],
    },
  ],
};

function mustCompile(kit: Kit): Rules {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error("the test's kit must compile");
  return compiled.value;
}

const rules = mustCompile(KIT);
const { program } = rules;
const FRAME_MS = 1000 / 60;
const eventsOf = (session: ReturnType<typeof createLiveSession>) =>
  formatTrace(program, session.trace).events;

test("a press lands on the first frame at or after it, and steps come at the kit's rate", () => {
  const session = createLiveSession(rules, 1000);
  expect(session.advance(1000)).toBe(1);
  session.setControl(1, 1, 1000 + 2.4 * FRAME_MS);
  session.setControl(1, 0, 1000 + 5 * FRAME_MS);
  expect(session.advance(1000 + 6.5 * FRAME_MS)).toBe(6);
  expect(
    eventsOf(session)
      .filter(e => e.kind === "fired")
      .map(e => [e.id, e.f]),
  ).toEqual([
    ["press", 3],
    ["release", 5],
  ]);
});

test("a tap shorter than a frame is not lost: it comes up one frame later", () => {
  const session = createLiveSession(rules, 0);
  session.setControl(0, 1, 3.2 * FRAME_MS);
  session.setControl(0, 0, 3.6 * FRAME_MS);
  session.advance(10 * FRAME_MS);
  expect(eventsOf(session)).toMatchObject([
    { f: 5, kind: "lapsed", id: "hold" },
    { f: 5, kind: "fired", id: "tap", edges: [["a", 4]] },
  ]);
});

test("a late event lands on the next frame, never on one already stepped", () => {
  const session = createLiveSession(rules, 0);
  session.advance(8 * FRAME_MS);
  expect(session.setControl(1, 1, 2 * FRAME_MS)).toEqual({ frame: 9, isDown: true, isStretched: false });
});

test("while paused nothing steps, and resuming does not catch up", () => {
  const session = createLiveSession(rules, 0);
  session.advance(5 * FRAME_MS);
  session.pause(5 * FRAME_MS);
  expect(session.advance(500 * FRAME_MS)).toBe(0);
  session.resume(500 * FRAME_MS);
  expect(session.advance(501 * FRAME_MS + 0.01)).toBe(1);
});

test.each([80, 400, 700, 9000])(
  "after a stall of %d ms every frame is stepped, and presses made in it keep their distances",
  stallMs => {
    const session = createLiveSession(rules, 0);
    session.advance(100);
    // Three presses of 102 ms, 51 and 101 ms apart, delivered only after the stall.
    const edges = [20, 122, 173, 275, 376, 478].map(ms => 100 + (ms * stallMs) / 500);
    edges.forEach((atMs, k) => session.setControl(0, k % 2 === 0 ? 1 : 0, atMs));
    let isFirst = true;
    while (session.advance(100 + stallMs, () => (isFirst = !isFirst)) > 0);
    expect(session.state.frame).toBe(Math.floor((100 + stallMs) / FRAME_MS + 1e-6));
    const take = keep(session);
    expect(take.gaps).toBeUndefined();
    take.lanes.a!.forEach(([x], k) => expect(x * FRAME_MS).toBeCloseTo(edges[k]!, 1));
  },
);

test("events that arrive together after a long stall make one gap, and keep their distances", () => {
  const session = createLiveSession(rules, 0);
  session.advance(100);
  // A page marks the gap before each event that it places, a little later each time.
  for (const [nowMs, atMs] of [
    [12_100, 5000],
    [12_104, 5100],
    [12_130, 5150],
  ] as const) {
    session.markGap(nowMs);
    session.setControl(0, atMs === 5100 ? 0 : 1, atMs);
  }
  expect(session.recording.gaps).toEqual([[7, 1983]]);
  const lane = session.recording.lanes.get("a")!;
  expect((lane[1]![0] - lane[0]![0]) * FRAME_MS).toBeCloseTo(100, 1);
  expect((lane[2]![0] - lane[1]![0]) * FRAME_MS).toBeCloseTo(50, 1);
});

test("time beyond ten seconds is a gap of its length: the rest is stepped, and later presses land by their time", () => {
  const session = createLiveSession(rules, 0);
  session.advance(1000);
  const { frame } = session.state;
  expect(session.markGap(13_000)).toBeGreaterThan(1900);
  session.setControl(0, 1, 12_900);
  expect(session.advance(13_000)).toBeCloseTo(600, -1);
  session.setControl(0, 0, 13_050);
  session.advance(13_100);
  const take = keep(session);
  const [[at, ms]] = take.gaps as [[number, number]];
  expect(at).toBe(frame + 1);
  expect(ms).toBeCloseTo(2000 - FRAME_MS, -1);
  const [[down], [up]] = take.lanes.a as [[number, number], [number, number]];
  expect((up - down) * FRAME_MS).toBeCloseTo(150, 0);
  const again = readTake(program, take);
  expect(formatTrace(program, runRules(rules, again).trace).events).toEqual(eventsOf(session));
});

test("releasing everything releases held controls", () => {
  const session = createLiveSession(rules, 0);
  session.setControl(0, 1, 0);
  session.advance(3 * FRAME_MS);
  session.releaseAll(3.5 * FRAME_MS);
  session.advance(4 * FRAME_MS);
  expect(session.state.down[0]).toBe(0);
});

const keep = (session: ReturnType<typeof createLiveSession>) =>
  takeOf(session.recording, session.state.frame + 1, { id: "t", name: "T", kitId: "live" }, () => true);

test("while the clock is stopped a press lands on the very next frame that is stepped, wherever the clock stopped", () => {
  for (const stoppedAt of [3, 3.4, 3.999, 5.5]) {
    const session = createLiveSession(rules, 0);
    session.advance(2 * FRAME_MS);
    session.pause(stoppedAt * FRAME_MS);
    const standing = session.state.frame;
    expect(session.setControl(1, 1, 900)).toMatchObject({ frame: standing + 1 });
    session.stepOnce();
    expect([session.state.frame, session.state.down[1]]).toEqual([standing + 1, 1]);
    expect(session.setControl(1, 0, 1800)).toMatchObject({ frame: standing + 2, isStretched: false });
    session.stepOnce();
    expect(session.state.down[1]).toBe(0);
    session.resume(2000);
    expect(session.advance(2000 + 1.5 * FRAME_MS)).toBeLessThanOrEqual(2);
  }
});

test("other rules during a session: the input so far is run through them, and continues as if they had always applied", () => {
  const stricter = mustCompile({
    ...KIT,
    patterns: KIT.patterns.map(pattern =>
      pattern.id === "hold" ? { ...pattern, for: "4f" } : pattern,
    ) as Kit["patterns"],
  });
  const play = (session: ReturnType<typeof createLiveSession>, from: number, to: number) => {
    for (let f = from; f < to; f++) {
      if (f % 9 === 2) session.setControl(0, 1, f * FRAME_MS);
      if (f % 9 === 7) session.setControl(0, 0, (f + 0.3) * FRAME_MS);
      if (f % 13 === 5) session.setGate(0, f % 2 === 0);
      if (f === 30) session.setSpeed(50);
      session.advance(f * FRAME_MS);
    }
  };
  const changed = createLiveSession(rules, 0);
  play(changed, 0, 40);
  const under = changed.under(stricter).catchUp()!;
  expect(under.state.frame).toBe(changed.state.frame);
  play(under, 40, 90);
  const take = keep(under);
  expect(take).toEqual(keep({ ...under, recording: changed.recording }));
  const replayed = formatTrace(stricter.program, runRules(stricter, readTake(stricter.program, take)).trace);
  expect(replayed.events).toEqual(formatTrace(stricter.program, under.trace).events);
  expect(replayed.events.filter(event => event.kind === "fired").length).toBeGreaterThan(5);
});

const happening = fc.oneof(
  fc.record({
    does: fc.constant("set" as const),
    control: fc.nat(1),
    value: fc.constantFrom(0, 0.45, 1),
    gapMs: fc.double({ min: 0, max: 90, noNaN: true }),
  }),
  fc.record({
    does: fc.constant("gate" as const),
    isOpen: fc.boolean(),
    gapMs: fc.double({ min: 0, max: 60, noNaN: true }),
  }),
  fc.record({ does: fc.constant("stall" as const), gapMs: fc.double({ min: 100, max: 900, noNaN: true }) }),
);

test("a session saved as a take gives the same trace, event for event", () => {
  let events = 0;
  fc.assert(
    fc.property(
      fc.array(happening, { minLength: 5, maxLength: 60 }),
      fc.integer({ min: 0, max: 1e7 }),
      (happenings, startMs) => {
        const session = createLiveSession(rules, startMs);
        let now = startMs;
        for (const happened of happenings) {
          now += happened.gapMs;
          if (happened.does === "set") session.setControl(happened.control, happened.value, now);
          if (happened.does === "gate") session.setGate(0, happened.isOpen);
          session.advance(now);
        }
        session.advance(now + 100);
        const parsed = parseTake(JSON.parse(JSON.stringify(keep(session))));
        expect(parsed.ok).toBe(true);
        if (!parsed.ok) return;
        const replayed = formatTrace(program, runRules(rules, readTake(program, parsed.value)).trace);
        expect(replayed.events).toEqual(eventsOf(session));
        expect(replayed.frames).toBe(session.state.frame + 1);
        events += replayed.events.length;
      },
    ),
    { numRuns: 300 },
  );
  expect(events).toBeGreaterThan(800);
});
