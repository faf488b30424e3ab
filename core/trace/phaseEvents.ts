import * as v from "valibot";
import type { MoveProgram, Program } from "../program/program";
import type { State } from "../program/state";
import { partNote } from "./notes/inner";
import { whole } from "./notes/parts";
import { PARTS, type Trace } from "./trace";

/** The phases of a move's timeline, as events of traces that are asked for them. */
export const PHASES = ["startup", "active", "recovery", "over", "cut"] as const;
export type Phase = (typeof PHASES)[number];

/** A phase of a move begins on frame `f`, or its timeline is over or cut. Source: frame rules, section 9. */
export const phaseEventSchema = v.strictObject({
  f: whole,
  kind: v.literal("phase"),
  id: v.string(),
  phase: v.picklist(PHASES),
});
export type PhaseEvent = v.InferOutput<typeof phaseEventSchema>;

const hasLength = ({ startupTicks, activeTicks, recoveryTicks }: MoveProgram) =>
  startupTicks + activeTicks + recoveryTicks > 0;

/**
 * Creates a reader of a trace's phases, note by note, from the beginning of the trace or from the state before its
 * first note. A timeline that begins in a slot cuts the one that runs there; moves whose timeline has no length have no
 * phases.
 */
export function createPhaseReader(program: Program, before?: State) {
  /** By slot: the move whose timeline runs, or −1, and its part, an index into PARTS. */
  const running = new Int32Array(program.slots.length).fill(-1);
  const part = new Uint8Array(program.slots.length);
  if (before) {
    part.set(before.slotPart);
    part.forEach((now, slot) => (running[slot] = now > 0 ? before.slotOwner[slot]! : -1));
  }
  let frame = -1;
  let ofFrame: { readonly move: number; readonly phase: Phase }[] = [];

  function flush(): PhaseEvent[] {
    const events = ofFrame
      .sort((a, b) => a.move - b.move)
      .map(({ move, phase }): PhaseEvent => ({
        f: frame,
        kind: "phase",
        id: program.moves[move]!.id,
        phase,
      }));
    ofFrame = [];
    return events;
  }

  function readPart(move: number, now: number): void {
    const { slot } = program.moves[move]!;
    const before = running[slot]!;
    // Within one timeline its part only grows, and nothing is noted without a change.
    const isNew = before !== move || (now > 0 && now <= part[slot]!);
    if (before >= 0 && isNew) ofFrame.push({ move: before, phase: "cut" });
    else if (before >= 0 && now === 0) ofFrame.push({ move, phase: "over" });
    running[slot] = now > 0 && hasLength(program.moves[move]!) ? move : -1;
    part[slot] = now;
    if (now > 0) ofFrame.push({ move, phase: PARTS[now] as Phase });
  }

  return {
    /** Reads one note; returns the phases of the frame before, if this note is of a later one. */
    read(trace: Trace, i: number): PhaseEvent[] {
      const done = trace.frame[i]! > frame ? flush() : [];
      frame = trace.frame[i]!;
      if (trace.kind[i] === partNote.code) readPart(trace.subject[i]!, partNote.part(trace, i));
      return done;
    },
    /** Returns the phases of the last frame. */
    flush,
  };
}
