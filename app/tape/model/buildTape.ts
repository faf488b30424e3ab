import {
  countFrames,
  createGrowingClock,
  FORMING,
  landingFrame,
  notes,
  readLane,
  SUSTAINED,
  TICKS,
  traitsOf,
  type Program,
  type Take,
  type Trace,
} from "#core";
import type { Rules } from "#stage";
import { followSpared } from "./spared";
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

/** Makes the tape of a trace that may still grow: each call reads only what is new since the last. */
export interface TapeBuilder {
  readonly extend: (trace: Trace) => TapeModel;
}

interface Named {
  readonly id: string;
  readonly name: string;
}

/** Lanes of a take whose control the kit does not have: kept, shown, and heard by nothing. */
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

/** The analog values of a control's lane, where it was ever anything between all and nothing. */
function addValues(row: TapeRow, lane: Take["lanes"][string], rateHz: number, takeRateHz: number): void {
  if (lane.every(([, value]) => value === 0 || value === 1)) return;
  for (const [x, value] of lane) {
    row.valueFrame.push(landingFrame(x, rateHz, takeRateHz));
    row.value.push(value);
  }
}

/** The lane of speed, where the take has one. */
function speedRow(take: Take, rateHz: number): TapeRow {
  const row = createRow("time", { id: "speed", name: "Speed" });
  for (const [x, percent] of take.speed ?? []) {
    const frame = landingFrame(x, rateHz, take.rate);
    closeSpan(row, frame);
    if (percent !== TICKS) addSpan(row, frame, Infinity, "speed", `${percent} %`);
  }
  return row;
}

/** Rows for a program, and what turns notes into stretches and marks on them. */
function createReader({ kit, program }: Rules) {
  const named = (group: TapeGroup, items: readonly { id: string }[], names: readonly Named[] = []) =>
    items.map(item =>
      createRow(group, names.find(other => other.id === item.id) ?? { id: item.id, name: item.id }),
    );
  const controls = named("controls", program.controls, kit.controls);
  const sticks: StickFollower[] = program.sticks.map((stick, s) =>
    followStick(stick, createRow("controls", kit.sticks![s]!)),
  );
  const gates = named("gates", program.gates, kit.gates);
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
  /** By move: how many of its requests wait. */
  const waiting = new Int32Array(program.moves.length);
  const spared = followSpared(program);

  function turnSpeed(frame: number, percent: number): void {
    clock.turn(frame, percent);
    if (freezeTo.at(-1) === Infinity) freezeTo[freezeTo.length - 1] = frame;
    if (percent > 0) return;
    freezeFrom.push(frame);
    freezeTo.push(Infinity);
  }

  /** A gate turns, or begins or ceases to be forgiven while it is closed. */
  function turnGate(gate: number, frame: number, look: "open" | "forgiven", isOn: boolean): void {
    const row = gates[gate]!;
    // A gate that opens has ended its trail already.
    if (look === "open" || isOn || row.spanLook.at(-1) === look) closeSpan(row, frame);
    if (isOn) addSpan(row, frame, Infinity, look);
  }

  /** A slot comes to another part of a timeline: what was drawn in it before ends there. */
  function turnPart(move: number, frame: number, part: (typeof notes.PARTS)[number]): void {
    const { slot } = program.moves[move]!;
    const before = running[slot]!;
    if (before >= 0) closeSpan(moves[before]!, frame);
    running[slot] = part === "none" ? -1 : move;
    if (part !== "none") addSpan(moves[move]!, frame, Infinity, part);
  }

  /** A request begins to wait, or is over: one stretch from the first that waits to when none does. */
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

  function readPrompt(prompt: number, frame: number, code: number, note: number): void {
    const row = prompts[prompt]!;
    closeSpan(row, frame);
    if (code === notes.SHOWN) addSpan(row, frame, Infinity, "lead");
    else if (code === notes.OPENED) addSpan(row, frame, Infinity, "window");
    else {
      if (code !== notes.FAILED) spared.answer(prompt, frame);
      const grade = program.prompts[prompt]!.grades[code - notes.GRADED]?.name ?? "";
      addMark(
        row,
        frame,
        code === notes.FAILED ? "failed" : "answered",
        note,
        -1,
        code === notes.OK ? "ok" : grade,
      );
    }
  }

  function readNote(trace: Trace, i: number): void {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    const first = trace.payload[trace.at[i]!]!;
    switch (trace.kind[i]) {
      case notes.EDGE:
        if (first === 1) addSpan(controls[subject]!, frame, Infinity, "down");
        else closeSpan(controls[subject]!, frame);
        for (const stick of sticks) stick.turnControl(subject, frame, first === 1);
        break;
      case notes.GATE:
        turnGate(subject, frame, "open", first === 1);
        for (const stick of sticks) stick.turnGate(subject, frame, first === 1);
        break;
      case notes.TRAIL:
        turnGate(subject, frame, "forgiven", first === 1);
        break;
      case notes.SPEED:
        turnSpeed(frame, first);
        break;
      case notes.PART:
        turnPart(subject, frame, notes.PARTS[first]!);
        break;
      case notes.REQUEST:
        turnWaiting(subject, frame, 1);
        spared.ask(trace, i);
        break;
      case notes.PHASE:
        closeSpan(patterns[subject]!, frame);
        if (first === FORMING) addSpan(patterns[subject]!, frame, Infinity, "forming");
        if (first === SUSTAINED) addSpan(patterns[subject]!, frame, Infinity, "sustained");
        break;
      case notes.FIRE:
        addMark(patterns[subject]!, frame, "fired", i);
        spared.fire(trace, i);
        break;
      case notes.LAPSE:
        addMark(patterns[subject]!, frame, "lapsed", i);
        break;
      case notes.PERFORMED:
        turnWaiting(subject, frame, -1);
        addMark(moves[subject]!, frame, "performed", i, first);
        spared.perform(subject, first);
        break;
      case notes.LOST:
        turnWaiting(subject, frame, -1);
        addMark(moves[subject]!, frame, spared.lose(trace, i, moves[subject]!), i, first);
        break;
      case notes.PROMPT:
        readPrompt(subject, frame, first, i);
        break;
      case notes.MODE: {
        const { id } = program.modes[subject]!;
        modeFrame.push(frame);
        modeName.push(kit.modes?.find(mode => mode.id === id)?.name ?? id);
        break;
      }
    }
  }

  return {
    readNote,
    settle: (frame: number) => sticks.forEach(stick => stick.settle(frame)),
    controls,
    modeFrame,
    modeName,
    clock,
    freezeFrom,
    freezeTo,
    rows: [
      ...sticks.map(stick => stick.row),
      ...controls,
      ...gates.filter((row, g) => program.gates[g]!.isListed && kit.gates?.some(gate => gate.id === row.id)),
      ...patterns.filter((_, i) => !program.patterns[i]!.isOff),
      ...moves.filter((_, m) => !program.moves[m]!.isOff),
      ...prompts.filter((_, p) => !program.prompts[p]!.isOff),
    ],
  };
}

type Reader = ReturnType<typeof createReader>;

/** The model as the reader has it by now, with some rows. */
function modelOf(reader: Reader, trace: Trace, rows: readonly TapeRow[]): TapeModel {
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
  };
}

/**
 * A tape for a trace that grows, as while playing. The model it gives has the same rows each time, longer by what is
 * new; stretches still open last to Infinity.
 */
export function createTapeBuilder(rules: Rules): TapeBuilder {
  const reader = createReader(rules);
  let read = 0;
  return {
    extend(trace) {
      for (; read < trace.count; read++) reader.readNote(trace, read);
      reader.settle(trace.frames);
      return modelOf(reader, trace, reader.rows);
    },
  };
}

/** Ends at the end of the take what is still open there, and leaves out what would begin behind it. */
function endAt(from: number[], to: number[], frames: number): void {
  while (from.length > 0 && from.at(-1)! >= frames) {
    from.pop();
    to.pop();
  }
  for (let k = 0; k < to.length; k++) if (to[k]! > frames) to[k] = frames;
}

/** A tape that is put together a piece at a time. */
export interface TapeReading {
  /** Reads on to a note, which is not read itself. */
  readonly readTo: (note: number) => void;
  /** The tape, when all notes have been read. To be called once. */
  readonly finish: () => TapeModel;
}

/** Begins to read a trace into the rows of the tape. Rules that are off have no row. No stretch outlasts the take. */
export function beginTape(rules: Rules, trace: Trace, take?: Take): TapeReading {
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
          if (Object.hasOwn(take.lanes, row.id))
            addValues(row, take.lanes[row.id]!, program.rateHz, take.rate);
        });
      for (const row of rows) {
        endAt(row.spanFrom, row.spanTo, trace.frames);
        endAt(row.waitFrom, row.waitTo, trace.frames);
      }
      endAt(reader.freezeFrom, reader.freezeTo, trace.frames);
      return modelOf(reader, trace, rows);
    },
  };
}

/** Makes the tape of a trace at once: one pass over the notes. */
export function buildTape(rules: Rules, trace: Trace, take?: Take): TapeModel {
  const reading = beginTape(rules, trace, take);
  reading.readTo(trace.count);
  return reading.finish();
}
