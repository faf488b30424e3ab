import { compile, readTake, type InputColumns, type Kit, type Program, type Take } from "#core";

/** Creates a seeded random generator (mulberry32), so that every run uses the same take. */
export function createChance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const CONTROLS = 8;

/** Returns a kit of 30 patterns and 20 moves per `times`, of all kinds, on eight controls and four gates. */
export function makeLargeKit(times: number): Kit {
  const control = (i: number) => `c${i % CONTROLS}`;
  const patterns = Array.from({ length: 30 * times }, (_, i): Kit["patterns"][number] => {
    const head = { id: `p${i}`, name: `P${i}`, control: control(i) };
    switch (i % 9) {
      case 0:
      case 1:
        return { ...head, kind: "press" };
      case 2:
        return { ...head, kind: "hold", for: "12f", fire: "reach" };
      case 3:
        return { ...head, kind: "tap", max: "8f" };
      case 4:
        return { ...head, kind: "charge", full: "40f", fire: "release", curve: "ease-in" };
      case 5:
        return { ...head, kind: "taps", count: 2, gap: "14f", answer: "nth" };
      case 6:
        return {
          id: head.id,
          name: head.name,
          kind: "chord",
          controls: [control(i), control(i + 1)],
          spread: "4f",
        };
      case 7:
        return {
          id: head.id,
          name: head.name,
          kind: "sequence",
          gap: "16f",
          steps: [{ press: control(i) }, { press: control(i + 1) }, { press: control(i + 2) }],
        };
      default:
        return {
          id: head.id,
          name: head.name,
          kind: "mash",
          controls: [control(i)],
          count: 4,
          within: "40f",
        };
    }
  });
  const moves = Array.from({ length: 20 * times }, (_, i) => ({
    id: `m${i}`,
    name: `M${i}`,
    pattern: `p${i}`,
    slot: `s${i % 4}`,
    buffer: "8f",
    needs: [{ gate: `g${i % 4}`, coyote: "5f" }],
    bans: [`busy:s${i % 4}`],
    frames: { startup: "3f", active: "4f", recovery: "10f" },
  }));
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "large",
    name: "Large",
    rate: 60,
    controls: Array.from({ length: CONTROLS }, (_, i) => ({ id: `c${i}`, name: `C${i}`, bindings: [] })),
    gates: Array.from({ length: 4 }, (_, i) => ({ id: `g${i}`, name: `G${i}` })),
    patterns,
    moves,
  };
}

/** Returns a take of about four presses per second on eight controls, with gates that open and close. */
export function makeTake(frames: number, seed = 1): Take {
  const chance = createChance(seed);
  const lanes: Record<string, [number, number][]> = {};
  for (let c = 0; c < CONTROLS; c++) {
    const lane: [number, number][] = [];
    for (let x = chance() * 120; x < frames; x += 20 + chance() * 200) {
      const length = 3 + chance() * 30;
      lane.push([x, 1], [x + length, 0]);
      x += length;
    }
    lanes[`c${c}`] = lane;
  }
  const gates: Record<string, [number, 0 | 1][]> = {};
  for (let g = 0; g < 4; g++) {
    const lane: [number, 0 | 1][] = [];
    for (let x = chance() * 60; x < frames; x += 40 + chance() * 60)
      lane.push([x, lane.length % 2 === 0 ? 1 : 0]);
    gates[`g${g}`] = lane;
  }
  return { format: "moss-tap/take", version: 1, id: "made", name: "Made", rate: 60, frames, lanes, gates };
}

/** Repeats a take until it has the given number of frames. */
export function lengthenTake(take: Take, frames: number): Take {
  const times = Math.ceil(frames / take.frames);
  const repeat = <T>(lane: readonly (readonly [number, T])[]) =>
    Array.from({ length: times }, (_, k) =>
      lane.map(([x, v]): [number, T] => [x + k * take.frames, v]),
    ).flat();
  const each = <T>(lanes: Readonly<Record<string, readonly (readonly [number, T])[]>>) =>
    Object.fromEntries(Object.entries(lanes).map(([id, lane]) => [id, repeat(lane)]));
  return {
    ...take,
    id: `${take.id}-long`,
    name: `${take.name}, long`,
    frames,
    lanes: each(take.lanes),
    gates: each(take.gates ?? {}),
  };
}

export function mustCompile(kit: Kit): Program {
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  return compiled.value;
}

export function prepare(kit: Kit, take: Take): { program: Program; columns: InputColumns } {
  const program = mustCompile(kit);
  return { program, columns: readTake(program, take) };
}

/** The small job: a hold, a double tap and a buffered move. */
export const SMALL_KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "small",
  name: "Small",
  rate: 60,
  controls: [{ id: "c0", name: "A", bindings: [] }],
  gates: [{ id: "g0", name: "Ground" }],
  patterns: [
    { id: "hold", name: "Hold", kind: "hold", control: "c0", for: "18f", fire: "reach" },
    { id: "double", name: "Double", kind: "taps", control: "c0", count: 2, gap: "12f", answer: "nth" },
    { id: "press", name: "Press", kind: "press", control: "c0" },
  ],
  moves: [{ id: "hop", name: "Hop", pattern: "press", needs: [{ gate: "g0" }], buffer: "6f" }],
};

/** A prompt shown whenever its gate opens; the moves beside it use the same presses as its answers. */
export const PROMPTED_KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "prompted",
  name: "Prompted",
  rate: 60,
  controls: [0, 1, 2].map(c => ({ id: `c${c}`, name: `C${c}`, bindings: [] })),
  gates: [
    { id: "ask", name: "Ask" },
    { id: "g0", name: "Ground" },
  ],
  patterns: [
    { id: "press", name: "Press", kind: "press", control: "c0" },
    { id: "twice", name: "Twice", kind: "taps", control: "c0", count: 2, gap: "20f", answer: "nth" },
    { id: "run", name: "Run", kind: "sequence", gap: "20f", steps: [{ press: "c0" }, { press: "c1" }] },
  ],
  moves: [
    { id: "hop", name: "Hop", pattern: "press", buffer: "12f", needs: [{ gate: "g0" }] },
    { id: "roll", name: "Roll", pattern: "twice", buffer: "6f" },
  ],
  prompts: [{ id: "rope", name: "Rope", ask: ["press", "run"], starts: { gate: "ask" }, window: "40f" }],
};

/** A prompt per second, each with its press, every third one pressed twice. */
export function makePromptedTake(frames: number): Take {
  const ask: [number, 0 | 1][] = [];
  const c0: [number, number][] = [];
  for (let x = 30; x + 60 < frames; x += 60) {
    ask.push([x, 1], [x + 10, 0]);
    c0.push([x + 12, 1], [x + 18, 0]);
    if (x % 180 === 30) c0.push([x + 24, 1], [x + 30, 0]);
  }
  return {
    format: "moss-tap/take",
    version: 1,
    id: "prompted",
    name: "Prompted",
    rate: 60,
    frames,
    lanes: { c0 },
    gates: { ask },
  };
}
