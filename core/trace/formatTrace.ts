import { traitsOf } from "../patterns/recordOf";
import { sourceId, type Program } from "../run/program";
import {
  FAILED,
  FAILURES,
  FIRE,
  GATE,
  GRADED,
  LAPSE,
  LAPSE_REASONS,
  LOSS_REASONS,
  LOST,
  MODE,
  OK,
  OPENED,
  PERFORMED,
  PERFORMED_BY,
  PROMPT,
  SHOWN,
  type Trace,
} from "./trace";
import type { TraceDocument, TraceEvent } from "./traceSchema";

/** Six decimals, and no minus zero. */
function round(value: number): number {
  return Math.round(value * 1e6) / 1e6 + 0;
}

function formatEdges(program: Program, trace: Trace, at: number): [string, number][] {
  const edges: [string, number][] = [];
  const count = trace.payload[at]!;
  for (let k = 1; k <= count; k++) {
    const key = trace.payload[at + k]!;
    const frame = Math.floor(key / program.sourceCount);
    const id = sourceId(program, key % program.sourceCount);
    if (!edges.some(edge => edge[0] === id && edge[1] === frame)) edges.push([id, frame]);
  }
  return edges;
}

function formatOutcome(program: Program, prompt: number, code: number): string {
  if (code === SHOWN) return "shown";
  if (code === OPENED) return "open";
  if (code === OK) return "ok";
  if (code === FAILED) return "failed";
  return program.prompts[prompt]!.grades[code - GRADED]!.name;
}

/** A loss as written: `gate:footing`, `ban:wall`, or the plain reason. */
export function formatLoss(program: Program, reason: number, gate: number): string {
  const word = LOSS_REASONS[reason]!;
  return word === "gate" || word === "ban" ? `${word}:${program.gates[gate]!.id}` : word;
}

/** One note as the event it is in a trace file, or undefined for the notes that stay inside. */
export function formatEvent(program: Program, trace: Trace, i: number): TraceEvent | undefined {
  const f = trace.frame[i]!;
  const subject = trace.subject[i]!;
  const at = trace.at[i]!;
  const payload = trace.payload;
  switch (trace.kind[i]) {
    case MODE:
      return { f, kind: "mode", id: program.modes[subject]!.id };
    case GATE:
      return { f, kind: "gate", id: program.gates[subject]!.id, open: payload[at] === 1 };
    case FIRE: {
      const pattern = program.patterns[subject]!;
      const carriedAt = at + 1 + payload[at]!;
      const carried: Record<string, number> = {};
      traitsOf(pattern.kind).carries.forEach((name, k) => (carried[name] = round(payload[carriedAt + k]!)));
      return { f, kind: "fired", id: pattern.id, edges: formatEdges(program, trace, at), ...carried };
    }
    case LAPSE: {
      const reached = payload[at + 1]!;
      const why = LAPSE_REASONS[payload[at]!]!;
      const id = program.patterns[subject]!.id;
      return reached < 0 ? { f, kind: "lapsed", id, why } : { f, kind: "lapsed", id, why, reached };
    }
    case PROMPT: {
      const outcome = formatOutcome(program, subject, payload[at]!);
      const id = program.prompts[subject]!.id;
      if (payload[at] !== FAILED) return { f, kind: "prompt", id, outcome };
      return { f, kind: "prompt", id, outcome, why: FAILURES[payload[at + 1]!]! };
    }
    case PERFORMED: {
      const made = payload[at]!;
      const by = PERFORMED_BY[payload[at + 1]!]!;
      return { f, kind: "performed", id: program.moves[subject]!.id, made, waited: f - made, by };
    }
    case LOST: {
      const why = formatLoss(program, payload[at + 1]!, payload[at + 2]!);
      return { f, kind: "lost", id: program.moves[subject]!.id, made: payload[at]!, why };
    }
    default:
      return undefined;
  }
}

/** The trace as the document a file holds: events in frame order, numbers rounded to six decimals. */
export function formatTrace(program: Program, trace: Trace): TraceDocument {
  const events: TraceEvent[] = [];
  for (let i = 0; i < trace.count; i++) {
    const event = formatEvent(program, trace, i);
    if (event) events.push(event);
  }
  return { format: "moss-tap/trace", version: 1, rate: trace.rateHz, frames: trace.frames, events };
}
