import {
  countFrames,
  createTakeClock,
  FORMING,
  landingFrame,
  notes,
  readLane,
  readTake,
  SUSTAINED,
  TICKS,
  traitsOf,
  type Program,
  type Take,
  type TakeClock,
  type Trace,
} from "#core";
import type { Rules } from "#stage";
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

/** Did another move use the press of a lost request? Then no press was lost by it. */
function isBeaten(trace: Trace, note: number): boolean {
  return trace.payload[trace.at[note]! + 1] === notes.BEATEN;
}

/** The longest coyote any move gives a gate, in ticks. */
function longestCoyote(program: Program, gate: number): number {
  return Math.max(
    0,
    ...program.moves.flatMap(move =>
      move.isOff ? [] : move.needs.filter(need => need.gate === gate).map(need => need.coyoteTicks),
    ),
  );
}

/** Lanes of a take whose control the kit does not have: kept, shown, and heard by nothing. */
function unboundRows(program: Program, take: Take): TapeRow[] {
  const frames = countFrames(take, program.rateHz);
  return Object.entries(take.lanes).flatMap(([id, lane]) => {
    if (program.controls.some(control => control.id === id)) return [];
    const row = createRow("controls", { id, name: `${id} (unbound)` });
    const landed = readLane(lane, { id, pressAt: 0.5, releaseAt: 0.4 }, program.rateHz, take.rate, frames);
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
function createReader({ kit, program }: Rules, clock: TakeClock) {
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
  const spentAt = new Float64Array(program.gates.length).fill(-1);
  const coyotes = gates.map((_, g) => longestCoyote(program, g));
  const modeFrame: number[] = [];
  const modeName: string[] = [];

  /** Was a gate spent by a move when it closes? Then it leaves no coyote behind. */
  const isSpent = (gate: number, frame: number) =>
    spentAt[gate]! >= 0 &&
    clock.ticksAt(frame) - clock.ticksAt(spentAt[gate]!) < program.gates[gate]!.spentForTicks;

  /** A gate turns; when it closes, its coyote trails after it until that is over or it opens again. */
  function turnGate(gate: number, frame: number, isOpen: boolean): void {
    const row = gates[gate]!;
    const last = row.spanTo.length - 1;
    if (isOpen) {
      if (last >= 0 && row.spanTo[last]! > frame) row.spanTo[last] = frame;
      addSpan(row, frame, Infinity, "open");
      return;
    }
    closeSpan(row, frame);
    const coyote = isSpent(gate, frame) ? 0 : coyotes[gate]!;
    if (coyote > 0) addSpan(row, frame, clock.frameAtAge(frame - 1, coyote + 1), "forgiven");
    spentAt[gate] = -1;
  }

  /** A move's timeline from the frame after it was performed. */
  function addTimeline(move: number, frame: number): void {
    const { startupTicks, activeTicks, recoveryTicks, isReal } = program.moves[move]!;
    const frameAt = (ticks: number) =>
      isReal ? frame + Math.ceil(ticks / TICKS) : clock.frameAtAge(frame, ticks);
    let passed = 0;
    for (const [ticks, look] of [
      [startupTicks, "startup"],
      [activeTicks, "active"],
      [recoveryTicks, "recovery"],
    ] as const) {
      const from = passed === 0 ? frame + 1 : frameAt(passed) + 1;
      passed += ticks;
      if (ticks > 0) addSpan(moves[move]!, from, frameAt(passed) + 1, look);
    }
  }

  function readPrompt(prompt: number, frame: number, code: number, note: number): void {
    const row = prompts[prompt]!;
    closeSpan(row, frame);
    if (code === notes.SHOWN) addSpan(row, frame, Infinity, "lead");
    else if (code === notes.OPENED) addSpan(row, frame, Infinity, "window");
    else {
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
        turnGate(subject, frame, first === 1);
        for (const stick of sticks) stick.turnGate(subject, frame, first === 1);
        break;
      case notes.PHASE:
        closeSpan(patterns[subject]!, frame);
        if (first === FORMING) addSpan(patterns[subject]!, frame, Infinity, "forming");
        if (first === SUSTAINED) addSpan(patterns[subject]!, frame, Infinity, "sustained");
        break;
      case notes.FIRE:
        addMark(patterns[subject]!, frame, "fired", i);
        break;
      case notes.LAPSE:
        addMark(patterns[subject]!, frame, "lapsed", i);
        break;
      case notes.PERFORMED:
        if (first < frame) addSpan(moves[subject]!, first, frame, "waiting");
        for (const gate of program.moves[subject]!.spends) spentAt[gate] = frame;
        addTimeline(subject, frame);
        addMark(moves[subject]!, frame, "performed", i, first);
        break;
      case notes.LOST:
        if (first < frame) addSpan(moves[subject]!, first, frame, "waiting");
        addMark(moves[subject]!, frame, isBeaten(trace, i) ? "beaten" : "lost", i, first);
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

/**
 * A tape for a trace that grows, as while playing. `clock` draws coyotes and timelines under slow motion. The model it
 * gives has the same rows each time, longer by what is new; stretches still open last to Infinity.
 */
export function createTapeBuilder(rules: Rules, clock: TakeClock = createTakeClock(undefined)): TapeBuilder {
  const reader = createReader(rules, clock);
  let read = 0;
  return {
    extend(trace) {
      for (; read < trace.count; read++) reader.readNote(trace, read);
      reader.settle(trace.frames);
      const { rows, modeFrame, modeName } = reader;
      return { frames: trace.frames, rateHz: trace.rateHz, rows, modeFrame, modeName, clock };
    },
  };
}

/** Makes the rows of the tape: one pass over the notes. Rules that are off have no row. No stretch outlasts the take. */
export function buildTape(rules: Rules, trace: Trace, take?: Take): TapeModel {
  const { program } = rules;
  const columns = take?.speed?.length ? readTake(program, take) : undefined;
  const clock = createTakeClock(columns);
  const reader = createReader(rules, clock);
  for (let i = 0; i < trace.count; i++) reader.readNote(trace, i);
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
      if (Object.hasOwn(take.lanes, row.id)) addValues(row, take.lanes[row.id]!, program.rateHz, take.rate);
    });
  for (const row of rows)
    for (let k = 0; k < row.spanTo.length; k++)
      if (row.spanTo[k]! > trace.frames) row.spanTo[k] = trace.frames;
  const { modeFrame, modeName } = reader;
  return { frames: trace.frames, rateHz: trace.rateHz, rows, modeFrame, modeName, clock };
}
