import * as v from "valibot";
import { BOUNDS } from "../formats/bounds";
import type { DeepReadonly } from "../formats/readonly";
import { duration, figure, flag, id, list, rate, some, text } from "../kit/parts";
import { FAILURES, LAPSE_REASONS, PERFORMED_BY } from "../trace/trace";

const frame = v.pipe(
  v.number("frames"),
  v.integer("frames"),
  v.minValue(0, "frames"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);
/** A count of events; its maximum is the number of frames in the longest take. */
const times = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(0, "whole"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);

/** Accepts one value or a list of values for a field of an event. */
function oneOf<T extends v.GenericSchema>(value: T) {
  return v.exactOptional(v.union([value, some(value)]));
}

const common = { id, f: oneOf(frame) };

/**
 * An event a check asks for: its kind, its id, and any other field the event has in a trace file except its
 * edges. Source: check rules, "Events".
 */
export const askedEventSchema = v.variant("kind", [
  v.strictObject({
    kind: v.literal("performed"),
    ...common,
    made: oneOf(frame),
    waited: oneOf(frame),
    by: oneOf(v.picklist(PERFORMED_BY, "choice")),
  }),
  v.strictObject({ kind: v.literal("lost"), ...common, made: oneOf(frame), why: oneOf(text) }),
  v.strictObject({
    kind: v.literal("fired"),
    ...common,
    repeat: oneOf(frame),
    held: oneOf(figure),
    age: oneOf(figure),
    ratio: oneOf(figure),
    level: oneOf(frame),
    value: oneOf(figure),
    count: oneOf(frame),
  }),
  v.strictObject({
    kind: v.literal("lapsed"),
    ...common,
    why: oneOf(v.picklist(LAPSE_REASONS, "choice")),
    reached: oneOf(frame),
  }),
  v.strictObject({
    kind: v.literal("prompt"),
    ...common,
    outcome: oneOf(text),
    why: oneOf(v.picklist(FAILURES, "choice")),
  }),
  v.strictObject({ kind: v.literal("gate"), ...common, open: oneOf(flag) }),
  v.strictObject({ kind: v.literal("mode"), ...common }),
]);

/** One event of a kept story: its frame at the kit's own rate, kind, id, and the outcome of a prompt. */
const keptSchema = v.union([
  v.strictTuple([frame, v.literal("performed"), id]),
  v.strictTuple([frame, v.literal("prompt"), id, text]),
]);

/** The fields every check has. */
const checkFields = {
  id,
  name: text,
  on: v.union([v.literal("*"), some(id)]),
  from: v.exactOptional(duration),
  to: v.exactOptional(duration),
  rates: v.exactOptional(some(rate)),
  off: v.exactOptional(flag),
};

/** The fields of each expectation; the first one names the expectation. */
const expectationFields = {
  happens: v.exactOptional(askedEventSchema),
  never: v.exactOptional(askedEventSchema),
  counts: v.exactOptional(askedEventSchema),
  order: v.exactOptional(v.pipe(list(askedEventSchema), v.minLength(2, "two"))),
  answers: v.exactOptional(id),
  same: v.exactOptional(v.array(keptSchema, "type")),
  at: v.exactOptional(duration),
  within: v.exactOptional(duration),
  min: v.exactOptional(times),
  max: v.exactOptional(times),
  move: v.exactOptional(id),
  slip: v.exactOptional(duration),
};

/** A check as stored in a file. `parseChecks` verifies which fields may appear together. */
export const checkSchema = v.strictObject({ ...checkFields, ...expectationFields });

/** The checks document. Source: check rules, "File". */
export const checksSchema = v.strictObject({
  format: v.literal("moss-tap/checks"),
  version: v.literal(1),
  id,
  name: text,
  kit: v.exactOptional(text),
  checks: list(checkSchema),
});

export type AskedEvent = DeepReadonly<v.InferOutput<typeof askedEventSchema>>;
export type KeptEvent = DeepReadonly<v.InferOutput<typeof keptSchema>>;

type CheckBase = DeepReadonly<v.InferOutput<v.StrictObjectSchema<typeof checkFields, undefined>>>;

/** The expectation of a check: exactly one of these. */
export type Expectation =
  | { readonly happens: AskedEvent; readonly at: string; readonly within?: string }
  | { readonly never: AskedEvent }
  | { readonly counts: AskedEvent; readonly min?: number; readonly max?: number }
  | { readonly order: readonly AskedEvent[] }
  | { readonly answers: string; readonly move?: string; readonly within?: string }
  | { readonly same: readonly KeptEvent[]; readonly slip?: string };

/** A rule about what must or must not be recognised in takes. */
export type Check = CheckBase & Expectation;

/** A list of checks as stored in a file. */
export interface Checks {
  readonly format: "moss-tap/checks";
  readonly version: 1;
  readonly id: string;
  readonly name: string;
  readonly kit?: string;
  readonly checks: readonly Check[];
}

/** The fields of each expectation, and which of them are required. */
export const EXPECTATIONS = {
  happens: { fields: ["at", "within"], needs: ["at"] },
  never: { fields: [], needs: [] },
  counts: { fields: ["min", "max"], needs: [] },
  order: { fields: [], needs: [] },
  answers: { fields: ["move", "within"], needs: [] },
  same: { fields: ["slip"], needs: [] },
} as const satisfies Record<string, { fields: readonly string[]; needs: readonly string[] }>;

export type ExpectationName = keyof typeof EXPECTATIONS;
export const EXPECTATION_NAMES = Object.keys(EXPECTATIONS) as readonly ExpectationName[];

/** Returns the name of a check's expectation. */
export function expectationOf(check: Check): ExpectationName {
  return EXPECTATION_NAMES.find(name => name in check)!;
}
