import type { Program } from "../program/program";
import { eventNotes } from "./noteKinds";
import { phasedNote } from "./notes/phased";
import type { Trace } from "./trace";
import type { PhasedTraceDocument, PhasedTraceEvent, TraceDocument, TraceEvent } from "./traceSchema";

type Format = (program: Program, trace: Trace, note: number) => TraceEvent;

const FORMAT_BY_CODE: readonly (Format | undefined)[] = (() => {
  const byCode: (Format | undefined)[] = [];
  for (const { code, format } of Object.values(eventNotes)) byCode[code] = format;
  return byCode;
})();

/** Returns one note as its event in a trace file, or undefined for notes that files omit. */
export function formatEvent(program: Program, trace: Trace, note: number): TraceEvent | undefined {
  return FORMAT_BY_CODE[trace.kind[note]!]?.(program, trace, note);
}

/** Returns the trace as the document a file holds: events in frame order, numbers rounded to six decimals. */
export function formatTrace(program: Program, trace: Trace): TraceDocument {
  const events: TraceEvent[] = [];
  for (let i = 0; i < trace.count; i++) {
    const event = formatEvent(program, trace, i);
    if (event) events.push(event);
  }
  return { format: "moss-tap/trace", version: 1, rate: trace.rateHz, frames: trace.frames, events };
}

/** Returns one note as its event in a trace file with phases, or undefined for notes that such files omit. */
export function formatPhasedEvent(
  program: Program,
  trace: Trace,
  note: number,
): PhasedTraceEvent | undefined {
  if (trace.kind[note] === phasedNote.code) return phasedNote.format(program, trace, note);
  return formatEvent(program, trace, note);
}

/** Returns the same with the phases of moves, last in their frames. */
export function formatPhasedTrace(program: Program, trace: Trace): PhasedTraceDocument {
  const events: PhasedTraceEvent[] = [];
  for (let i = 0; i < trace.count; i++) {
    const event = formatPhasedEvent(program, trace, i);
    if (event) events.push(event);
  }
  return { format: "moss-tap/trace", version: 1, rate: trace.rateHz, frames: trace.frames, events };
}
