import fc from "fast-check";
import { expect, test } from "vitest";
import { createInputCursor, loadInput, readTake, seekInput } from "../input/inputColumns";
import type { Kit, Pattern } from "../kit/schema";
import { anyKit, anyPatientKit, anyTake } from "../tests/arbitraries";
import { drawTake, mustCompile, play, sketchKit } from "../tests/strips";
import { createTrace, rewindTrace, type Trace } from "../trace/trace";
import { formatTrace } from "../trace/formatTrace";
import type { TraceEvent } from "../trace/traceSchema";
import { evaluate } from "./run";
import { AWAKE, copyState, createState } from "../program/state";
import { passOver, step } from "./step";

const RUNS = Number(process.env.RUNS ?? 120);

/** Counts occurrences over all runs of a property, so that an untested property shows. */
function tally() {
  const seen = new Map<string, number>();
  return {
    add: (events: readonly TraceEvent[]) =>
      events.forEach(e => seen.set(e.kind, (seen.get(e.kind) ?? 0) + 1)),
    of: (kind: TraceEvent["kind"]) => seen.get(kind) ?? 0,
  };
}

const eventsOf = (kit: Kit, take: Parameters<typeof evaluate>[1]) => {
  const program = mustCompile(kit);
  return formatTrace(program, evaluate(program, take)).events;
};

test("the same input gives the same trace; every kind of event occurs", () => {
  const all = tally();
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const events = eventsOf(kit, take);
      expect(eventsOf(kit, take)).toEqual(events);
      all.add(events);
    }),
    { numRuns: RUNS },
  );
  for (const kind of ["mode", "gate", "fired", "lapsed", "prompt", "performed", "lost"] as const)
    expect(all.of(kind), kind).toBeGreaterThan(0);
});

test("copying and restoring the state at any frame changes nothing, nor does cloning the program", () => {
  fc.assert(
    fc.property(anyKit, anyTake, fc.nat(119), fc.nat(40), (kit, take, at, on) => {
      const program = mustCompile(kit);
      const whole = formatTrace(program, evaluate(program, take)).events;
      const cloned = structuredClone(program);
      const columns = readTake(program, take);
      const cursor = createInputCursor(program, columns);
      const state = createState(cloned);
      const kept = createState(cloned);
      const trace = createTrace(60);
      for (let f = 0; f < at; f++) step(cloned, state, loadInput(cursor, f), trace);
      copyState(cloned, state, kept);
      for (let f = at; f < Math.min(120, at + on); f++) step(cloned, state, loadInput(cursor, f), trace);
      copyState(cloned, kept, state);
      rewindTrace(trace, at);
      seekInput(cursor, at);
      for (let f = at; f < 120; f++) step(cloned, state, loadInput(cursor, f), trace);
      expect(formatTrace(program, trace).events).toEqual(whole);
    }),
    { numRuns: RUNS },
  );
});

/** The columns of a trace: all its notes, also those that no file has. */
const notesOf = ({ count, used, frame, kind, subject, payload }: Trace) =>
  [
    frame.subarray(0, count),
    kind.subarray(0, count),
    subject.subarray(0, count),
    payload.subarray(0, used),
  ].map(column => [...column]);

/** By request: the age at each noted frame, and what it would have been lost for; in order. */
function listWaits(waits: readonly number[]): ReadonlyMap<string, { age: number; reason: number }[]> {
  const found = new Map<string, { age: number; reason: number }[]>();
  for (let k = 0; k < waits.length; k += 4) {
    const request = `${waits[k]} made on ${waits[k + 1]}`;
    found.set(request, [...(found.get(request) ?? []), { age: waits[k + 2]!, reason: waits[k + 3]! }]);
  }
  return found;
}

/** Returns what requests would have been lost for at every age that `every` notes, by the notes of another run. */
function reasonsAt(every: readonly number[], waits: readonly number[]) {
  const noted = listWaits(waits);
  return [...listWaits(every)].map(([request, own]) => [
    request,
    own.map(({ age }) => noted.get(request)?.find(wait => wait.age >= age)?.reason),
  ]);
}

test.each([
  ["any kit", anyKit],
  ["kits whose moves wait and run for long", anyPatientKit],
])("stepping frame by frame, without sleeping and skipping, equals the batch run, on %s", (_name, kits) => {
  let skipped = 0;
  let timed = 0;
  fc.assert(
    fc.property(kits, anyTake, (kit, take) => {
      const program = mustCompile(kit);
      const columns = readTake(program, take);
      const cursor = createInputCursor(program, columns);
      const state = createState(program);
      const waits: number[] = [];
      const trace = createTrace(60, 256, waits);
      for (let f = 0; f < 120; f++) {
        state.isQuiet = false;
        state.areGatesAtRest = false;
        state.awake.fill(AWAKE);
        step(program, state, loadInput(cursor, f), trace);
      }
      const course = createState(program);
      const playedWaits: number[] = [];
      const played = createTrace(60, 256, playedWaits);
      seekInput(cursor, 0);
      for (let f = 0; f < 120; f = course.frame + 1) {
        const most = Math.min(cursor.nextFrame, 120) - f;
        const passed = most > 0 ? passOver(program, course, played, most) : 0;
        if (passed === 0) step(program, course, loadInput(cursor, f), played);
        skipped += passed;
        if (passed > 0 && passed < most) timed++;
      }
      expect(notesOf(played)).toEqual(notesOf(trace));
      expect(notesOf(evaluate(program, take))).toEqual(notesOf(trace));
      expect(reasonsAt(waits, playedWaits)).toEqual(reasonsAt(waits, waits));
    }),
    { numRuns: RUNS },
  );
  // Frames were skipped, and some skips ended at a wake time, not at an input.
  expect([skipped > RUNS, timed > 0]).toEqual([true, true]);
});

/** Returns whether a gate has no events in a trace. */
const isUnreported = (gate: string) => /^(busy|out):/.test(gate);

test("no performed move without its fire, its needs and its edges, and one edge serves one move a frame", () => {
  const all = tally();
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const events = eventsOf(kit, take);
      all.add(events);
      const open = new Map<string, number[]>();
      for (const e of events) if (e.kind === "gate") open.set(e.id, [...(open.get(e.id) ?? []), e.f]);
      const isOpenAt = (gate: string, f: number) =>
        ((open.get(gate) ?? []).filter(turn => turn <= f).length ?? 0) % 2 === 1;
      const fireOf = (move: NonNullable<Kit["moves"]>[number], made: number) =>
        events.findLast(
          e => e.kind === "fired" && e.id === move.pattern && (move.again ? e.f <= made : e.f === made),
        );
      const usedOnFrame = new Map<string, number>();
      for (const e of events) {
        if (e.kind !== "performed") continue;
        const move = kit.moves!.find(m => m.id === e.id)!;
        const fire = fireOf(move, e.made);
        // A hold carried into a mode keeps requesting; its fire, from before the switch, was not noted.
        expect(fire !== undefined || (move.again && kit.modes?.some(mode => mode.carry))).toBe(true);
        for (const need of move.needs ?? [])
          if (need.coyote === undefined && !isUnreported(need.gate))
            expect(isOpenAt(need.gate, e.f)).toBe(true);
        for (const ban of move.bans ?? []) if (!isUnreported(ban)) expect(isOpenAt(ban, e.f)).toBe(false);
        if (move.shares || fire?.kind !== "fired") continue;
        for (const edge of fire.edges) {
          const key = `${e.f} ${edge.join("@")}`;
          usedOnFrame.set(key, (usedOnFrame.get(key) ?? 0) + 1);
        }
      }
      for (const [, times] of usedOnFrame) expect(times).toBe(1);
    }),
    { numRuns: RUNS },
  );
  // 150 in the median of sixty samples, 12 in the poorest.
  expect(all.of("performed")).toBeGreaterThan(0);
});

test("each request has one end, and each showing of a prompt one outcome", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const events = eventsOf(kit, take);
      const ends = events
        .filter(e => e.kind === "performed" || e.kind === "lost")
        .map(e => `${e.id} ${"made" in e ? e.made : ""}`);
      expect(new Set(ends).size).toBe(ends.length);
      for (const prompt of kit.prompts ?? []) {
        let isShown = false;
        for (const e of events) {
          if (e.kind !== "prompt" || e.id !== prompt.id || e.outcome === "open") continue;
          expect(e.outcome === "shown").toBe(!isShown);
          isShown = e.outcome === "shown";
        }
      }
    }),
    { numRuns: RUNS },
  );
});

test("a disabled rule has no effect", () => {
  fc.assert(
    fc.property(anyKit, anyTake, fc.nat(5), (kit, take, which) => {
      const target = kit.patterns[which % kit.patterns.length]!;
      const isUsed =
        (kit.moves ?? []).some(m => m.pattern === target.id) ||
        (kit.prompts ?? []).some(p => p.ask.includes(target.id)) ||
        (kit.gates ?? []).some(g => g.while === target.id || g.fires === target.id);
      if (isUsed) return;
      const off = {
        ...kit,
        patterns: kit.patterns.map(p => (p === target ? ({ ...p, off: true } as Pattern) : p)),
      };
      const absent = { ...kit, patterns: kit.patterns.filter(p => p !== target) };
      expect(eventsOf(off, take)).toEqual(eventsOf(absent, take));
      const isNamed = (id: string) => JSON.stringify(kit).includes(`"out:${id}"`);
      const move = (kit.moves ?? []).find(
        m => !isNamed(m.id) && !(kit.gates ?? []).some(g => g.performs === m.id),
      );
      if (!move) return;
      const moveOff = { ...kit, moves: kit.moves!.map(m => (m === move ? { ...m, off: true } : m)) };
      const moveAbsent = { ...kit, moves: kit.moves!.filter(m => m !== move) };
      expect(eventsOf(moveOff, take)).toEqual(eventsOf(moveAbsent, take));
    }),
    { numRuns: RUNS },
  );
});

const strip = fc
  .array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 9 })), { minLength: 8, maxLength: 20 })
  .map(runs => runs.map(([on, n]) => (on ? "#" : ".").repeat(n)).join(""));

test("a longer buffer or coyote never loses a press that a shorter one saved", () => {
  let saved = 0;
  fc.assert(
    fc.property(
      strip,
      strip,
      fc.nat(8),
      fc.nat(8),
      fc.nat(6),
      fc.nat(6),
      (a, g, buffer, coyote, moreBuffer, moreCoyote) => {
        const kit = (b: number, c: number) =>
          sketchKit("a", {
            gates: [{ id: "g", name: "G" }],
            patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
            moves: [
              { id: "m", name: "M", pattern: "p", buffer: `${b}f`, needs: [{ gate: "g", coyote: `${c}f` }] },
            ],
            queue: "all",
          });
        const take = drawTake({ a }, { g });
        const short = play(kit(buffer, coyote), take)
          .of("performed")
          .map(e => e.made);
        const long = new Set(
          play(kit(buffer + moreBuffer, coyote + moreCoyote), take)
            .of("performed")
            .map(e => e.made),
        );
        saved += short.length;
        for (const made of short) expect(long.has(made)).toBe(true);
      },
    ),
    { numRuns: RUNS },
  );
  expect(saved).toBeGreaterThan(RUNS);
});

test("no hold, tap or gap is judged early or late by a frame", () => {
  fc.assert(
    fc.property(strip, fc.integer({ min: 1, max: 12 }), (a, n) => {
      const kit = sketchKit("a", {
        patterns: [
          { id: "h", name: "H", kind: "hold", control: "a", for: `${n}f`, fire: "reach" },
          { id: "t", name: "T", kind: "tap", control: "a", max: `${n}f` },
          { id: "d", name: "D", kind: "taps", control: "a", count: 2, gap: `${n}f`, answer: "nth" },
        ],
      });
      const events = eventsOf(kit, drawTake({ a: `${a}.` }));
      const presses = [...a].flatMap((mark, f) => (mark === "#" && a[f - 1] !== "#" ? [f] : []));
      const lengthOf = (f: number) => /^#+/.exec(a.slice(f))![0].length;
      const fired = (id: string) => events.filter(e => e.kind === "fired" && e.id === id).map(e => e.f);
      expect(fired("h")).toEqual(presses.filter(f => lengthOf(f) >= n).map(f => f + n));
      expect(fired("t")).toEqual(presses.filter(f => lengthOf(f) <= n).map(f => f + lengthOf(f)));
      const doubles: number[] = [];
      let first = -Infinity;
      for (const f of presses) {
        if (f - first <= n) {
          doubles.push(f);
          first = -Infinity;
        } else first = f;
      }
      expect(fired("d")).toEqual(doubles);
    }),
    { numRuns: RUNS },
  );
});
