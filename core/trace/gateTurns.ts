import { firstNoteAfter, GATE, IMPLIED, type Trace } from "./trace";
import { gateNote } from "./notes/gate";
import { impliedNote } from "./notes/inner";

/** Returns whether a note is a turn of a gate, also of one that no trace file mentions. */
const isTurn = (trace: Trace, note: number) => trace.kind[note] === GATE || trace.kind[note] === IMPLIED;

/** Returns whether a turn opens its gate. */
const isOpening = (trace: Trace, note: number) =>
  (trace.kind[note] === GATE ? gateNote : impliedNote).isOpen(trace, note) === 1;

/** The frames on which a gate opened and closed, in order. */
export interface GateTurns {
  readonly opened: readonly number[];
  readonly closed: readonly number[];
}

/**
 * Returns the turns of every gate of a program in a trace, by the index of the gate. The busy gate of a slot has turns only if a
 * move needs it or is banned by it.
 */
export function listGateTurns(gateCount: number, trace: Trace): readonly GateTurns[] {
  const turns = Array.from({ length: gateCount }, () => ({ opened: [] as number[], closed: [] as number[] }));
  for (let i = 0; i < trace.count; i++) {
    if (!isTurn(trace, i)) continue;
    const own = turns[trace.subject[i]!]!;
    (isOpening(trace, i) ? own.opened : own.closed).push(trace.frame[i]!);
  }
  return turns;
}

/** Returns the turns of one gate in a trace, as `listGateTurns` does. */
export function turnsOfGate(trace: Trace, gate: number): GateTurns {
  const opened: number[] = [];
  const closed: number[] = [];
  for (let i = 0; i < trace.count; i++)
    if (isTurn(trace, i) && trace.subject[i] === gate)
      (isOpening(trace, i) ? opened : closed).push(trace.frame[i]!);
  return { opened, closed };
}

/** Returns the first frame after another on which a gate opens; undefined if it does not open again. */
export function nextOpening(trace: Trace, gate: number, after: number): number | undefined {
  for (let i = firstNoteAfter(trace, after); i < trace.count; i++)
    if (isTurn(trace, i) && trace.subject[i] === gate && isOpening(trace, i)) return trace.frame[i]!;
  return undefined;
}
