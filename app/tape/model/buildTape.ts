import {
  countFrames,
  createGrowingClock,
  FORMING,
  gateName,
  gapFrames,
  landingFrame,
  isAnswered,
  notes,
  PARTS,
  promptOutcome,
  stretchAt,
  readLane,
  SUSTAINED,
  TICKS,
  traitsOf,
  type NoteName,
  type Program,
  type Take,
  type Trace,
  ownValue,
} from "#core";
import { actsOf, listReported, type Act } from "#link";
import type { Rules } from "#stage";
import { createGameRows, type GameRows } from "./gameRows";
import { followLosses, type LossMarks } from "./lossMarks";
import { createStageRows } from "./stageRows";
import { followStick, type StickFollower } from "./stickRows";
import {
  addMark,
  addSpan,
  closeSpan,
  createRow,
  type TapeGroup,
  type TapeModel,
  type TapeRow,
} from "./tapeRows";

/** Builds the tape of a trace that may still grow: each call reads only new notes. */
export interface TapeBuilder {
  /** `acts`: those of a running game so far, in its own frames; `track`: that of the bodies so far. */
  readonly extend: (trace: Trace, acts?: readonly Act[], track?: ArrayLike<number>) => TapeModel;
}

interface Named {
  readonly id: string;
  readonly name: string;
}

/** Returns rows for lanes of a take whose control the kit lacks; they are kept and shown. */
function unboundRows(program: Program, take: Take): TapeRow[] {
  const frames = countFrames(take, program.rateHz);
  return Object.entries(take.lanes).flatMap(([id, lane]) => {
    if (program.controls.some(control => control.id === id)) return [];
    const row = createRow("controls", { id, name: `${id} (unbound)` });
    const landed = readLane(
      lane,
      { id, pressAt: 0.5, releaseAt: 0.4, isToggle: false },
      program.rateHz,
      take.rate,
      frames,
    );
    landed.forEach((frame, k) =>
      k % 2 === 0 ? addSpan(row, frame, Infinity, "down") : closeSpan(row, frame),
    );
    return [row];
  });
}

/** Adds the analog values of a control's lane, if it has any between 0 and 1. */
function addValues(row: TapeRow, lane: Take["lanes"][string], rateHz: number, takeRateHz: number): void {
  if (lane.every(([, value]) => value === 0 || value === 1)) return;
  for (const [x, value] of lane) {
    row.valueFrame.push(landingFrame(x, rateHz, takeRateHz));
    row.value.push(value);
  }
}

/** Names the press of a control on a frame as one that the player did not mean. */
function nameUnmeant(row: TapeRow, frame: number): void {
  const k = stretchAt(row.spanFrom, row.spanTo, frame);
  if (k >= 0) row.spanText[k] = "not meant";
}

/** Returns the speed lane, if the take has one. */
function speedRow(take: Take, rateHz: number): TapeRow {
  const row = createRow("time", { id: "speed", name: "Speed" });
  for (const [x, percent] of take.speed ?? []) {
    const frame = landingFrame(x, rateHz, take.rate);
    closeSpan(row, frame);
    if (percent !== TICKS) addSpan(row, frame, Infinity, "speed", `${percent} %`);
  }
  return row;
}

/** Creates the rows of a program, and the reader that turns notes into stretches and marks. */
function createReader({ kit, program }: Rules) {
  const named = (group: TapeGroup, items: readonly { id: string }[], names: readonly Named[] = []) =>
    items.map(item =>
      createRow(group, names.find(other => other.id === item.id) ?? { id: item.id, name: item.id }),
    );
  const controls = named("controls", program.controls, kit.controls);
  const sticks: StickFollower[] = program.sticks.map((stick, s) =>
    followStick(stick, createRow("controls", kit.sticks![s]!)),
  );
  const gates = named(
    "gates",
    program.gates,
    program.gates.map(({ id }) => ({ id, name: gateName(kit, id) })),
  );
  const patterns = program.patterns.map((pattern, i) =>
    createRow("patterns", kit.patterns[i]!, traitsOf(pattern.kind).growth?.(pattern)),
  );
  const moves = named("moves", program.moves, kit.moves);
  const prompts = named("prompts", program.prompts, kit.prompts);
  const modeFrame: number[] = [];
  const modeName: string[] = [];
  const clock = createGrowingClock();
  const freezeFrom: number[] = [];
  const freezeTo: number[] = [];
  /** By slot: the move whose timeline is drawn. */
  const running = new Int32Array(program.slots.length).fill(-1);
  /** By move: the number of its pending requests. */
  const waiting = new Int32Array(program.moves.length);
  let losses: { readonly of: Trace; readonly marks: LossMarks } | undefined;

  function turnSpeed(frame: number, percent: number): void {
    clock.turn(frame, percent);
    if (freezeTo.at(-1) === Infinity) freezeTo[freezeTo.length - 1] = frame;
    if (percent > 0) return;
    freezeFrom.push(frame);
    freezeTo.push(Infinity);
  }

  /** A gate opens or closes, or starts or stops being forgiven. */
  function turnGate(gate: number, frame: number, look: "open" | "forgiven", isOn: boolean): void {
    const row = gates[gate]!;
    // An opening gate has already ended its trail.
    if (look === "open" || isOn || row.spanLook.at(-1) === look) closeSpan(row, frame);
    if (isOn) addSpan(row, frame, Infinity, look);
  }

  function openGate(gate: number, frame: number, isOpen: boolean): void {
    turnGate(gate, frame, "open", isOpen);
    for (const stick of sticks) stick.turnGate(gate, frame, isOpen);
  }

  /** A slot's timeline reaches another part; the previous part ends there. */
  function turnPart(move: number, frame: number, part: (typeof PARTS)[number]): void {
    const { slot } = program.moves[move]!;
    const before = running[slot]!;
    if (before >= 0) closeSpan(moves[before]!, frame);
    running[slot] = part === "none" ? -1 : move;
    if (part !== "none") addSpan(moves[move]!, frame, Infinity, part);
  }

  /** A request starts waiting, or ends: one stretch from the first pending request until none is pending. */
  function turnWaiting(move: number, frame: number, by: 1 | -1): void {
    const { waitFrom, waitTo } = moves[move]!;
    waiting[move] = waiting[move]! + by;
    if (by === 1 && waiting[move] === 1) {
      waitFrom.push(frame);
      waitTo.push(Infinity);
    } else if (waiting[move] === 0) {
      waitTo[waitTo.length - 1] = frame;
      if (waitFrom.at(-1)! < frame) return;
      waitFrom.pop();
      waitTo.pop();
    }
  }

  function readPrompt(prompt: number, frame: number, outcome: number, note: number): void {
    const row = prompts[prompt]!;
    closeSpan(row, frame);
    if (outcome === promptOutcome.shown) addSpan(row, frame, Infinity, "lead");
    else if (outcome === promptOutcome.open) addSpan(row, frame, Infinity, "window");
    else {
      const grade = program.prompts[prompt]!.grades[outcome - promptOutcome.graded]?.name ?? "";
      const look = isAnswered(outcome) ? "answered" : "failed";
      addMark(row, frame, look, note, -1, outcome === promptOutcome.ok ? "ok" : grade);
    }
  }

  function turnPhase(pattern: number, frame: number, phase: number): void {
    closeSpan(patterns[pattern]!, frame);
    if (phase === FORMING) addSpan(patterns[pattern]!, frame, Infinity, "forming");
    if (phase === SUSTAINED) addSpan(patterns[pattern]!, frame, Infinity, "sustained");
  }

  /** The change of rows for each kind of note. `i`: the note, `f` its frame, `of` its subject. */
  const readers: Readonly<Record<NoteName, (trace: Trace, i: number, f: number, of: number) => void>> = {
    edge(trace, i, f, of) {
      const isDown = notes.edge.isDown(trace, i) === 1;
      if (isDown) addSpan(controls[of]!, f, Infinity, "down");
      else closeSpan(controls[of]!, f);
      for (const stick of sticks) stick.turnControl(of, f, isDown);
    },
    gate: (trace, i, f, of) => openGate(of, f, notes.gate.isOpen(trace, i) === 1),
    implied: (trace, i, f, of) => openGate(of, f, notes.implied.isOpen(trace, i) === 1),
    trail: (trace, i, f, of) => turnGate(of, f, "forgiven", notes.trail.isOn(trace, i) === 1),
    speed: (trace, i, f) => turnSpeed(f, notes.speed.percent(trace, i)),
    part: (trace, i, f, of) => turnPart(of, f, PARTS[notes.part.part(trace, i)]!),
    request: (_trace, _i, f, of) => turnWaiting(of, f, 1),
    phase: (trace, i, f, of) => turnPhase(of, f, notes.phase.phase(trace, i)),
    fired: (_trace, i, f, of) => addMark(patterns[of]!, f, "fired", i),
    lapsed: (_trace, i, f, of) => addMark(patterns[of]!, f, "lapsed", i),
    performed(trace, i, f, of) {
      turnWaiting(of, f, -1);
      addMark(moves[of]!, f, "performed", i, notes.performed.made(trace, i));
    },
    lost(trace, i, f, of) {
      turnWaiting(of, f, -1);
      addMark(moves[of]!, f, losses!.marks.lookOf(i, moves[of]!), i, notes.lost.made(trace, i));
    },
    prompt: (trace, i, f, of) => readPrompt(of, f, notes.prompt.outcome(trace, i), i),
    mode(_trace, _i, f, of) {
      const { id } = program.modes[of]!;
      modeFrame.push(f);
      modeName.push(kit.modes?.find(mode => mode.id === id)?.name ?? id);
    },
    // Shown only in the fate of the press, and drawn as parts.
    kept: () => undefined,
    phased: () => undefined,
  };
  const byCode: (typeof readers)[NoteName][] = [];
  for (const { name, code } of Object.values(notes)) byCode[code] = readers[name];

  function readNote(trace: Trace, i: number): void {
    if (losses?.of !== trace) losses = { of: trace, marks: followLosses(program, trace) };
    losses.marks.readNote(i);
    byCode[trace.kind[i]!]!(trace, i, trace.frame[i]!, trace.subject[i]!);
  }

  return {
    readNote,
    settle: (frame: number) => sticks.forEach(stick => stick.writeUpTo(frame)),
    controls,
    modeFrame,
    modeName,
    clock,
    freezeFrom,
    freezeTo,
    rows: [
      ...sticks.map(stick => stick.row),
      ...controls,
      ...gates.filter((row, g) => program.gates[g]!.isOutput || kit.gates?.some(gate => gate.id === row.id)),
      ...patterns.filter((_, i) => !program.patterns[i]!.isOff),
      ...moves.filter((_, m) => !program.moves[m]!.isOff),
      ...prompts.filter((_, p) => !program.prompts[p]!.isOff),
    ],
  };
}

type Reader = ReturnType<typeof createReader>;

/** Returns the reader's current model, with some rows. */
function modelOf(
  reader: Reader,
  trace: Trace,
  rows: readonly TapeRow[],
  take?: Pick<Take, "gaps" | "rate">,
): TapeModel {
  const { modeFrame, modeName, clock, freezeFrom, freezeTo } = reader;
  return {
    frames: trace.frames,
    rateHz: trace.rateHz,
    rows,
    modeFrame,
    modeName,
    clock,
    freezeFrom,
    freezeTo,
    gapFrame: take ? gapFrames(take, trace.rateHz) : [],
    gapMs: (take?.gaps ?? []).map(([, ms]) => ms),
  };
}

/** The most notes that a growing tape reads between two pictures, some milliseconds; the rest follows with the next ones. */
const NOTES_A_PICTURE = 6000;

/**
 * Builds the tape of a growing trace, as while playing; with rows of a running game at `gameHz`, if there is one. Its model keeps the same rows, extended by new
 * content; open stretches last to Infinity.
 */
export function createTapeBuilder(rules: Rules, gameHz?: number): TapeBuilder {
  const reader = createReader(rules);
  const game = gameHz === undefined ? undefined : createGameRows(rules.kit, rules.program, gameHz);
  const stage = createStageRows(rules);
  const rows = withOthers(reader.rows, [...stage.rows, ...(game?.rows ?? [])]);
  let read = 0;
  return {
    extend(trace, acts = [], track = []) {
      const until = Math.min(trace.count, read + NOTES_A_PICTURE);
      for (; read < until; read++) reader.readNote(trace, read);
      // The frames of which every note is read.
      const frames = read < trace.count ? trace.frame[read]! : trace.frames;
      reader.settle(frames);
      stage.extend(track, frames);
      if (acts.length > 0) game?.extend(trace, acts);
      return { ...modelOf(reader, trace, rows), frames };
    },
  };
}

/** Returns rows with those of the stage and of a game after the moves. */
function withOthers(rows: readonly TapeRow[], others: readonly TapeRow[]): readonly TapeRow[] {
  const at = rows.findIndex(({ group }) => group === "prompts" || group === "time");
  return at < 0 ? [...rows, ...others] : [...rows.slice(0, at), ...others, ...rows.slice(at)];
}

/** Ends open stretches at the end of the take, and removes those that begin beyond it. */
function endAt(from: number[], to: number[], frames: number): void {
  while (from.length > 0 && from.at(-1)! >= frames) {
    from.pop();
    to.pop();
  }
  for (let k = 0; k < to.length; k++) if (to[k]! > frames) to[k] = frames;
}

/** Returns the rows of what the game performed in a take; undefined if it reported nothing. */
function readGame({ kit, program }: Rules, trace: Trace, take: Take): GameRows | undefined {
  if (take.did === undefined) return undefined;
  const game = createGameRows(kit, program, take.rate, listReported(take));
  game.extend(trace, actsOf(take), true);
  return game;
}

/** A tape under construction, built in slices. */
export interface TapeReading {
  /** Reads up to a note (exclusive). */
  readonly readTo: (note: number) => void;
  /** Returns the tape after all notes were read. Call once. */
  readonly finish: () => TapeModel;
}

/**
 * Starts building the tape of a trace. Disabled rules have no row. No stretch extends beyond the take. `track`: that of the
 * bodies; without it their rows are empty.
 */
export function beginTape(
  rules: Rules,
  trace: Trace,
  take?: Take,
  track: ArrayLike<number> = [],
): TapeReading {
  const { program } = rules;
  const reader = createReader(rules);
  let next = 0;
  return {
    readTo(note) {
      for (; next < note; next++) reader.readNote(trace, next);
    },
    finish() {
      reader.settle(trace.frames);
      const at = reader.rows.findIndex(row => row.group !== "controls");
      const rows = take
        ? [
            ...reader.rows.slice(0, at < 0 ? undefined : at),
            ...unboundRows(program, take),
            ...(at < 0 ? [] : reader.rows.slice(at)),
            speedRow(take, program.rateHz),
          ]
        : reader.rows;
      if (take)
        reader.controls.forEach(row => {
          const lane = ownValue(take.lanes, row.id);
          if (lane) addValues(row, lane, program.rateHz, take.rate);
          for (const x of ownValue(take.unmeant, row.id) ?? [])
            nameUnmeant(row, landingFrame(x, program.rateHz, take.rate));
        });
      const stage = createStageRows(rules);
      stage.extend(track, trace.frames);
      for (const row of [...rows, ...stage.rows]) {
        endAt(row.spanFrom, row.spanTo, trace.frames);
        endAt(row.waitFrom, row.waitTo, trace.frames);
      }
      endAt(reader.freezeFrom, reader.freezeTo, trace.frames);
      return modelOf(
        reader,
        trace,
        withOthers(rows, [...stage.rows, ...((take && readGame(rules, trace, take)?.rows) ?? [])]),
        take,
      );
    },
  };
}

/** Builds the tape of a trace at once, in one pass over the notes. */
export function buildTape(rules: Rules, trace: Trace, take?: Take, track?: ArrayLike<number>): TapeModel {
  const reading = beginTape(rules, trace, take, track);
  reading.readTo(trace.count);
  return reading.finish();
}
