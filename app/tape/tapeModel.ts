import {
  countFrames,
  FIRED,
  FORMING,
  LAPSED,
  notes,
  readLane,
  SUSTAINED,
  type Kit,
  type Program,
  type Take,
  type Trace,
} from "#core";

export type TapeGroup = "controls" | "gates" | "patterns" | "moves" | "prompts";

/** How a stretch of a row looks; what each means is told in the legend and, by shape, without colour. */
export type SpanLook =
  | "down"
  | "open"
  | "forgiven"
  | "forming"
  | "sustained"
  | "waiting"
  | "startup"
  | "active"
  | "recovery"
  | "lead"
  | "window";

/** How a single frame of a row looks. */
export type MarkLook = "fired" | "lapsed" | "performed" | "lost" | "answered" | "failed";

/** One row: stretches and marks as columns, both in frame order. `to` is the first frame after the stretch. */
export interface TapeRow {
  readonly group: TapeGroup;
  readonly id: string;
  readonly name: string;
  readonly spanFrom: number[];
  readonly spanTo: number[];
  readonly spanLook: SpanLook[];
  readonly markFrame: number[];
  readonly markLook: MarkLook[];
  /** The note a mark comes from, for the sentence about it. */
  readonly markNote: number[];
  /** For a move's mark, the frame on which it was asked for; −1 for others. */
  readonly markMade: number[];
}

/** Everything the tape draws, made of a trace. */
export interface TapeModel {
  readonly frames: number;
  readonly rateHz: number;
  readonly rows: readonly TapeRow[];
  readonly modeFrame: readonly number[];
  /** The name of the mode that begins on each of those frames. */
  readonly modeName: readonly string[];
}

function createRow(group: TapeGroup, item: { readonly id: string; readonly name: string }): TapeRow {
  const name = item.name || item.id;
  return {
    group,
    id: item.id,
    name,
    spanFrom: [],
    spanTo: [],
    spanLook: [],
    markFrame: [],
    markLook: [],
    markNote: [],
    markMade: [],
  };
}

/** An open stretch of a row: closed by the next one, or by the end. */
function addSpan(row: TapeRow, from: number, to: number, look: SpanLook): void {
  row.spanFrom.push(from);
  row.spanTo.push(to);
  row.spanLook.push(look);
}

function closeSpan(row: TapeRow, frame: number): void {
  const last = row.spanTo.length - 1;
  if (last >= 0 && row.spanTo[last] === Infinity) row.spanTo[last] = frame;
}

/** The longest coyote any move gives a gate, in whole frames. */
function longestCoyote(program: Program, gate: number): number {
  return Math.max(
    0,
    ...program.moves.flatMap(move =>
      move.isOff ? [] : move.needs.filter(need => need.gate === gate).map(need => need.coyoteTicks / 100),
    ),
  );
}

/** Was a gate spent by a move, at full speed, when it closes on a frame? Then it leaves no coyote behind. */
function isSpent(program: Program, spentAt: Float64Array, gate: number, frame: number): boolean {
  return spentAt[gate]! >= 0 && (frame - spentAt[gate]!) * 100 < program.gates[gate]!.spentForTicks;
}

/** A gate turns; when it closes, its coyote trails after it until that is over or it opens again. */
function turnGate(row: TapeRow, frame: number, isOpen: boolean, coyote: number): void {
  const last = row.spanTo.length - 1;
  if (!isOpen) {
    closeSpan(row, frame);
    if (coyote > 0) addSpan(row, frame, frame + coyote, "forgiven");
    return;
  }
  if (last >= 0 && row.spanTo[last]! > frame) row.spanTo[last] = frame;
  addSpan(row, frame, Infinity, "open");
}

function addMark(row: TapeRow, frame: number, look: MarkLook, note: number, made = -1): void {
  row.markFrame.push(frame);
  row.markLook.push(look);
  row.markNote.push(note);
  row.markMade.push(made);
}

/** A move's timeline from the frame after it was performed, in whole frames at full speed. */
function addTimeline(row: TapeRow, program: Program, move: number, frame: number): void {
  const { startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  let from = frame + 1;
  for (const [ticks, look] of [
    [startupTicks, "startup"],
    [activeTicks, "active"],
    [recoveryTicks, "recovery"],
  ] as const) {
    if (ticks > 0) addSpan(row, from, from + ticks / 100, look);
    from += ticks / 100;
  }
}

function readPhase(row: TapeRow, frame: number, phase: number): void {
  closeSpan(row, frame);
  if (phase === FORMING) addSpan(row, frame, Infinity, "forming");
  if (phase === SUSTAINED) addSpan(row, frame, Infinity, "sustained");
  if (phase === FIRED || phase === LAPSED) return;
}

function readPrompt(row: TapeRow, frame: number, code: number, note: number): void {
  closeSpan(row, frame);
  if (code === notes.SHOWN) addSpan(row, frame, Infinity, "lead");
  else if (code === notes.OPENED) addSpan(row, frame, Infinity, "window");
  else addMark(row, frame, code === notes.FAILED ? "failed" : "answered", note);
}

/** Lanes of a take whose control the kit does not have: kept, shown, and heard by nothing. */
function unboundRows(program: Program, take: Take | undefined): TapeRow[] {
  if (!take) return [];
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

/** Makes the rows of the tape: one pass over the notes. Rules that are off have no row. */
export function buildTape(kit: Kit, program: Program, trace: Trace, take?: Take): TapeModel {
  const named = (
    group: TapeGroup,
    items: readonly { id: string }[],
    names: readonly { id: string; name: string }[] = [],
  ) =>
    items.map(item =>
      createRow(group, names.find(other => other.id === item.id) ?? { id: item.id, name: item.id }),
    );
  const controls = named("controls", program.controls, kit.controls);
  const gates = named("gates", program.gates, kit.gates);
  const patterns = named("patterns", program.patterns, kit.patterns);
  const moves = named("moves", program.moves, kit.moves);
  const prompts = named("prompts", program.prompts, kit.prompts);
  const spentAt = new Float64Array(program.gates.length).fill(-1);
  const coyotes = gates.map((_, g) => longestCoyote(program, g));
  const modeFrame: number[] = [];
  const modeName: string[] = [];
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    const first = trace.payload[trace.at[i]!]!;
    switch (trace.kind[i]) {
      case notes.EDGE:
        if (first === 1) addSpan(controls[subject]!, frame, Infinity, "down");
        else closeSpan(controls[subject]!, frame);
        break;
      case notes.GATE:
        turnGate(
          gates[subject]!,
          frame,
          first === 1,
          isSpent(program, spentAt, subject, frame) ? 0 : coyotes[subject]!,
        );
        if (first === 0) spentAt[subject] = -1;
        break;
      case notes.PHASE:
        readPhase(patterns[subject]!, frame, first);
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
        addTimeline(moves[subject]!, program, subject, frame);
        addMark(moves[subject]!, frame, "performed", i, first);
        break;
      case notes.LOST:
        if (first < frame) addSpan(moves[subject]!, first, frame, "waiting");
        addMark(moves[subject]!, frame, "lost", i, first);
        break;
      case notes.PROMPT:
        readPrompt(prompts[subject]!, frame, first, i);
        break;
      case notes.MODE:
        modeFrame.push(frame);
        modeName.push(
          kit.modes?.find(mode => mode.id === program.modes[subject]!.id)?.name ?? program.modes[subject]!.id,
        );
        break;
    }
  }
  const rows = [
    ...controls,
    ...unboundRows(program, take),
    ...gates.filter((_, g) => program.gates[g]!.isListed),
    ...patterns.filter((_, i) => !program.patterns[i]!.isOff),
    ...moves.filter((_, m) => !program.moves[m]!.isOff),
    ...prompts.filter((_, p) => !program.prompts[p]!.isOff),
  ];
  for (const row of rows) {
    for (let k = 0; k < row.spanTo.length; k++)
      if (row.spanTo[k]! > trace.frames) row.spanTo[k] = trace.frames;
  }
  return { frames: trace.frames, rateHz: trace.rateHz, rows, modeFrame, modeName };
}
