import { compile } from "../kit/compile";
import type { Kit } from "../kit/schema";
import type { Take } from "../input/takeSchema";
import { formatIssue } from "../formats/formatIssue";
import { formatTrace } from "../trace/formatTrace";
import { EDGE, LOST, PERFORMED, PHASE, type Trace } from "../trace/trace";
import type { TraceEvent } from "../trace/traceSchema";
import type { Program } from "../program/program";
import type { KitProgram } from "../patterns/kinds";
import { evaluate } from "../run/run";

/** Returns a kit for tests: 60 Hz, one control per letter, the rest as given. */
export function sketchKit(controls: string, rest: Partial<Kit>): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "sketch",
    name: "Sketch",
    rate: 60,
    controls: [...controls].map(id => ({ id, name: id.toUpperCase(), bindings: [] })),
    patterns: [],
    ...rest,
  };
}

/** Parses a strip, one character per frame: `#` is 1, `.` is 0, a digit is tenths. */
function toLane(strip: string): [number, number][] {
  const values = [...strip].map(mark => (mark === "#" ? 1 : mark === "." ? 0 : Number(mark) / 10));
  return values.flatMap((value, x): [number, number][] =>
    value === (x === 0 ? 0 : values[x - 1]) ? [] : [[x, value]],
  );
}

/**
 * Returns a take drawn as strips: one per control, and one per gate under `gates`. `speed` is a list of
 * pairs.
 */
export function drawTake(
  lanes: Readonly<Record<string, string>>,
  gates: Readonly<Record<string, string>> = {},
  speed?: Take["speed"],
): Take {
  const frames = Math.max(...[...Object.values(lanes), ...Object.values(gates)].map(strip => strip.length));
  return {
    format: "moss-tap/take",
    version: 1,
    id: "drawn",
    name: "Drawn",
    rate: 60,
    frames,
    lanes: Object.fromEntries(Object.entries(lanes).map(([id, strip]) => [id, toLane(strip)])),
    gates: Object.fromEntries(
      Object.entries(gates).map(([id, strip]) => [id, toLane(strip) as [number, 0 | 1][]]),
    ),
    ...(speed ? { speed } : {}),
  };
}

/** Compiles a kit that must be valid; fails the test on faults. */
export function mustCompile(kit: Kit): KitProgram {
  const compiled = compile(kit);
  if (compiled.ok) return compiled.value;
  throw new Error(compiled.issues.map(formatIssue).join("\n"));
}

const MARKS = ".~F=x";

/** Draws the phases of a pattern as a strip: `.` idle, `~` forming, `F` fired, `=` sustained, `x` lapsed. */
export function drawPhases(program: Program, trace: Trace, id: string): string {
  const subject = program.patterns.findIndex(pattern => pattern.id === id);
  const marks: string[] = [];
  let phase = 0;
  for (let i = 0, f = 0; f < trace.frames; f++) {
    for (; i < trace.count && trace.frame[i] === f; i++) {
      if (trace.kind[i] === PHASE && trace.subject[i] === subject) phase = trace.payload[trace.at[i]!]!;
    }
    marks.push(MARKS[phase]!);
  }
  return marks.join("");
}

const BY = "dbc2";

/** Draws a move as a strip: `d` performed directly, `b` by buffer, `c` by coyote, `2` by both, `L` lost. */
export function drawMove(program: Program, trace: Trace, id: string): string {
  const subject = program.moves.findIndex(move => move.id === id);
  const marks = new Array<string>(trace.frames).fill(".");
  for (let i = 0; i < trace.count; i++) {
    if (trace.subject[i] !== subject) continue;
    if (trace.kind[i] === PERFORMED) marks[trace.frame[i]!] = BY[trace.payload[trace.at[i]! + 1]!]!;
    if (trace.kind[i] === LOST) marks[trace.frame[i]!] = "L";
  }
  return marks.join("");
}

/** Draws the cleaned states of a control as a strip. */
export function drawControl(program: Program, trace: Trace, id: string): string {
  const subject = program.controls.findIndex(control => control.id === id);
  const marks: string[] = [];
  let down = 0;
  for (let i = 0, f = 0; f < trace.frames; f++) {
    for (; i < trace.count && trace.frame[i] === f; i++) {
      if (trace.kind[i] === EDGE && trace.subject[i] === subject) down = trace.payload[trace.at[i]!]!;
    }
    marks.push(down === 1 ? "#" : ".");
  }
  return marks.join("");
}

/** Runs a kit on a take and returns drawing functions for tests. */
export function play(kit: Kit, take: Take) {
  const program = mustCompile(kit);
  const trace = evaluate(program, take);
  const events = formatTrace(program, trace).events;
  return {
    program,
    trace,
    events,
    phases: (id: string) => drawPhases(program, trace, id),
    move: (id: string) => drawMove(program, trace, id),
    control: (id: string) => drawControl(program, trace, id),
    of: <K extends TraceEvent["kind"]>(kind: K) =>
      events.filter(e => e.kind === kind) as Extract<TraceEvent, { kind: K }>[],
  };
}
