import * as v from "valibot";
import { traitsOf } from "../../patterns/recordOf";
import { countWords } from "../../formats/words";
import { FIRE, type Trace } from "../trace";
import { edgeCountOf, formatEdges } from "./edgeList";
import { defineNote, type EventKind } from "./noteKind";
import { roundSix, whole } from "./parts";

const schema = v.strictObject({
  f: whole,
  kind: v.literal("fired"),
  id: v.string(),
  edges: v.array(v.tuple([v.string(), whole])),
  repeat: v.exactOptional(whole),
  held: v.exactOptional(v.number()),
  age: v.exactOptional(v.number()),
  ratio: v.exactOptional(v.number()),
  level: v.exactOptional(whole),
  value: v.exactOptional(v.number()),
  count: v.exactOptional(whole),
});

/** Returns number `k` of a fire's payload, in the order of the pattern's `carries`. */
export function carriedOf(trace: Trace, note: number, k: number): number {
  return trace.payload[trace.at[note]! + 1 + edgeCountOf(trace, note) + k]!;
}

const short = (value: number) => String(Number(value.toFixed(2)));

const event: EventKind<typeof schema> = {
  schema,
  format(program, trace, note) {
    const { id, kind } = program.patterns[trace.subject[note]!]!;
    const carried: Record<string, number> = {};
    traitsOf(kind).carries.forEach((name, k) => (carried[name] = roundSix(carriedOf(trace, note, k))));
    return { f: trace.frame[note]!, kind: "fired", id, edges: formatEdges(program, trace, note), ...carried };
  },
  words({ count, age, level, value, held, repeat }) {
    if (count !== undefined) return `fired, ${countWords(count, "tap")}`;
    if (age !== undefined)
      return `fired, charged ${short(age)}f, level ${level ?? 0}, worth ${short(value ?? 0)}`;
    if (held !== undefined) return `fired, held ${short(held)}f`;
    return repeat ? `fired, repeat ${repeat}` : "fired";
  },
};

/** A pattern fires. Payload: its edges (see edgeList), then the numbers it carries. */
export const firedNote = { ...defineNote("fired", FIRE, "patterns"), ...event };
