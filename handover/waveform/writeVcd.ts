import { landingFrame, notes, promptOutcome, type Program, type Take, type Trace, ownValue } from "#core";

/** One signal of a dump: a bit, a vector of bits, or a real number. */
interface Signal {
  readonly scope: string;
  readonly name: string;
  readonly width: number | "real";
  /** Changes in order of frame; the first is the value before frame 0. */
  readonly changes: { readonly frame: number; readonly value: number }[];
}

/** Returns a valid signal name: printable, without spaces or brackets; distinct ids stay distinct. */
function toName(id: string): string {
  return [...id]
    .map(letter => (/[A-Za-z0-9_-]/.test(letter) ? letter : `$${letter.codePointAt(0)!.toString(16)}$`))
    .join("");
}

/** Returns the short code of a signal: printable characters from ! on, as in the standard. */
function codeOf(place: number): string {
  const letter = String.fromCharCode(33 + (place % 94));
  return place < 94 ? letter : codeOf(Math.floor(place / 94) - 1) + letter;
}

const bitsFor = (most: number) => Math.max(1, Math.ceil(Math.log2(most + 1)));

function signal(scope: string, id: string, width: Signal["width"], value: number): Signal {
  return { scope, name: toName(id), width, changes: [{ frame: -1, value }] };
}

/** Sets a signal from a frame on; the last of several values on one frame counts. */
function set({ changes }: Signal, frame: number, value: number): void {
  const last = changes.at(-1)!;
  if (last.frame === frame) changes.pop();
  if (changes.at(-1)?.value !== value) changes.push({ frame, value });
}

/** Adds the device's value of a control, if it is more than up and down. */
function addAnalog(signals: Signal[], program: Program, take: Take): void {
  for (const control of program.controls) {
    const lane = ownValue(take.lanes, control.id) ?? [];
    if (lane.every(([, value]) => value === 0 || value === 1)) continue;
    const raw = signal("values", control.id, "real", 0);
    for (const [x, value] of lane) set(raw, landingFrame(x, program.rateHz, take.rate), value);
    signals.push(raw);
  }
}

/**
 * Collects the signals of a run in the program's order: controls, gates, phases of patterns, parts of slots,
 * mode, prompts.
 */
function gather(program: Program, trace: Trace, take: Take): Signal[] {
  const controls = program.controls.map(({ id }) => signal("controls", id, 1, 0));
  const gates = program.gates.map(({ id }) => signal("gates", id, 1, 0));
  const patterns = program.patterns.map(({ id }) => signal("patterns", id, 3, 0));
  const fires = program.patterns.map(({ id }) => signal("fires", id, 1, 0));
  const slots = program.slots.map(({ id }) => signal("slots", id, 2, 0));
  const performed = program.moves.map(({ id }) => signal("performed", id, 1, 0));
  const mode = signal("modes", "mode", bitsFor(program.modes.length), 0);
  const prompts = program.prompts.map(({ id, grades }) =>
    signal("prompts", id, bitsFor(promptOutcome.graded + grades.length), 0),
  );
  const once = (of: Signal, frame: number) => {
    set(of, frame, 1);
    of.changes.push({ frame: frame + 1, value: 0 });
  };
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    switch (trace.kind[i]) {
      case notes.edge.code:
        set(controls[subject]!, frame, notes.edge.isDown(trace, i));
        break;
      case notes.gate.code:
        set(gates[subject]!, frame, notes.gate.isOpen(trace, i));
        break;
      case notes.phase.code:
        set(patterns[subject]!, frame, notes.phase.phase(trace, i));
        break;
      case notes.fired.code:
        once(fires[subject]!, frame);
        break;
      case notes.performed.code:
        once(performed[subject]!, frame);
        break;
      case notes.part.code:
        set(slots[program.moves[subject]!.slot]!, frame, notes.part.part(trace, i));
        break;
      case notes.mode.code:
        set(mode, frame, subject + 1);
        break;
      case notes.prompt.code:
        // 0 before it was first shown, then one more than the outcome's code.
        set(prompts[subject]!, frame, notes.prompt.outcome(trace, i) + 1);
    }
  }
  const signals = [...controls, ...gates, ...patterns, ...fires, ...slots, ...performed];
  if (program.modes.length > 0) signals.push(mode);
  signals.push(...prompts);
  addAnalog(signals, program, take);
  return signals;
}

const formatValue = ({ width }: Signal, value: number, code: string) =>
  width === "real" ? `r${value} ${code}` : width === 1 ? `${value}${code}` : `b${value.toString(2)} ${code}`;

/** The time unit of a dump. */
export interface TimeUnit {
  readonly words: string;
  /** Converts a frame to units, and back. */
  readonly timeOf: (frame: number) => number;
  readonly frameOf: (time: number) => number;
}

/**
 * Returns the time unit of a dump at a rate: nanoseconds; microseconds at 1 Hz, where the longest take would
 * exceed exact integers. Rates that divide a thousand million have frames of whole nanoseconds. Others, such
 * as 60, have no exact decimal unit: each frame is rounded to the nearest unit, with an error below half a
 * unit that does not accumulate.
 */
export function unitFor(rateHz: number): TimeUnit {
  const perSecond = rateHz > 1 ? 1e9 : 1e6;
  return {
    words: rateHz > 1 ? "1 ns" : "1 us",
    timeOf: frame => Math.round((frame * perSecond) / rateHz),
    frameOf: time => Math.round((time * rateHz) / perSecond),
  };
}

/**
 * Formats a take with its trace as a value change dump (IEEE 1364): controls as cleaned bits, values of
 * analog ones as reals; gates, fires and performances as bits; phases of patterns (0 idle, 1 forming, 2
 * fired, 3 sustained, 4 lapsed), parts of slots (0 none, 1 startup, 2 active, 3 recovery), the mode (its
 * index, from 1) and prompts (0 never shown, 1 shown, 2 open, 3 answered, 4 failed, from 5 on the grades) as
 * vectors. A frame's values apply from its time on.
 */
export function writeVcd(program: Program, trace: Trace, take: Take): string {
  const signals = gather(program, trace, take);
  const unit = unitFor(program.rateHz);
  const lines = [
    "$version Moss Tap $end",
    `$comment rate ${program.rateHz} frames ${trace.frames} $end`,
    `$timescale ${unit.words} $end`,
  ];
  let scope = "";
  signals.forEach((item, k) => {
    if (item.scope !== scope) {
      if (scope) lines.push("$upscope $end");
      scope = item.scope;
      lines.push(`$scope module ${scope} $end`);
    }
    const [sort, size] = item.width === "real" ? ["real", 64] : ["wire", item.width];
    lines.push(`$var ${sort} ${size} ${codeOf(k)} ${item.name} $end`);
  });
  if (scope) lines.push("$upscope $end");
  lines.push("$enddefinitions $end", "$dumpvars");
  const changes: { readonly frame: number; readonly text: string }[] = [];
  signals.forEach((item, k) => {
    const [before, ...rest] = item.changes;
    const isAtOnce = rest[0]?.frame === 0;
    lines.push(formatValue(item, isAtOnce ? rest[0]!.value : before!.value, codeOf(k)));
    for (const { frame, value } of isAtOnce ? rest.slice(1) : rest)
      if (frame < trace.frames) changes.push({ frame, text: formatValue(item, value, codeOf(k)) });
  });
  lines.push("$end");
  changes.sort((a, b) => a.frame - b.frame);
  let now = 0;
  for (const { frame, text } of changes) {
    if (frame !== now) lines.push(`#${unit.timeOf(frame)}`);
    now = frame;
    lines.push(text);
  }
  lines.push(`#${unit.timeOf(trace.frames)}`, "");
  // Readers expect the first time before the first values.
  lines.splice(lines.indexOf("$dumpvars"), 0, "#0");
  return lines.join("\n");
}
