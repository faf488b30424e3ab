import { BOUNDS } from "../formats/bounds";
import * as v from "valibot";
import { PATTERN_KINDS } from "../patterns/kinds";
import type { DeepReadonly } from "../formats/readonly";
import { assistSchema } from "./assistSchema";
import { clock, count1, duration, figure, flag, id, list, rate, seed, some, text, unit } from "./parts";

/**
 * A binding's code: a W3C key code; a button or half-axis of the standard mapping, of any pad (`pad:0`) or of one by
 * its order (`pad2:axis0+`); a pointer button; a notch of the wheel.
 */
export const CODE_PATTERN =
  /^(?:key:[A-Za-z][A-Za-z0-9]*|pad[1-9]?:(?:\d{1,3}|axis\d{1,2}[+-])|mouse:\d|wheel:(?:up|down|left|right))$/;

/** One way to play a control: codes that must all be down. */
export const bindingSchema = some(v.pipe(v.string("code"), v.regex(CODE_PATTERN, "code")), BOUNDS.clauses);

const controlSchema = v.strictObject({
  id,
  name: text,
  bindings: list(bindingSchema, BOUNDS.clauses),
  pressAt: v.exactOptional(unit),
  releaseAt: v.exactOptional(unit),
  toggle: v.exactOptional(flag),
});

const stickSchema = v.strictObject({
  id,
  name: text,
  up: id,
  down: id,
  left: id,
  right: id,
  opposites: v.exactOptional(v.picklist(["neutral", "latest", "first"], "choice")),
  mirrorWhen: v.exactOptional(id),
  zone: v.exactOptional(v.picklist(["axis", "circle"], "choice")),
  ways: v.exactOptional(v.picklist([4, 8], "choice")),
});

const gateSchema = v.strictObject({
  id,
  name: text,
  spentFor: v.exactOptional(duration),
  linger: v.exactOptional(duration),
  all: v.exactOptional(some(id, BOUNDS.clauses)),
  any: v.exactOptional(some(id, BOUNDS.clauses)),
  none: v.exactOptional(some(id, BOUNDS.clauses)),
  while: v.exactOptional(id),
  fires: v.exactOptional(id),
  performs: v.exactOptional(id),
  atLeast: v.exactOptional(count1),
  until: v.exactOptional(id),
});

type Kinds = typeof PATTERN_KINDS;
export type PatternKind = keyof Kinds;
type PatternDocument = v.InferOutput<Kinds[PatternKind]["schema"]>;

/** Every kind of pattern, one form per kind. */
export const patternSchema = v.variant(
  "kind",
  Object.values(PATTERN_KINDS).map(kind => kind.schema) as unknown as [Kinds["press"]["schema"]],
  "no-variant",
) as unknown as v.GenericSchema<PatternDocument>;

const moveSchema = v.strictObject({
  id,
  name: text,
  pattern: id,
  when: v.exactOptional(
    v.strictObject({
      count: v.exactOptional(count1),
      level: v.exactOptional(
        v.pipe(v.number("whole"), v.integer("whole"), v.minValue(0, "whole"), v.maxValue(999, "range")),
      ),
    }),
  ),
  needs: v.exactOptional(
    list(v.strictObject({ gate: id, coyote: v.exactOptional(duration) }), BOUNDS.clauses),
  ),
  bans: v.exactOptional(list(id, BOUNDS.clauses)),
  buffer: v.exactOptional(duration),
  defer: v.exactOptional(duration),
  priority: v.exactOptional(figure),
  slot: v.exactOptional(id),
  spends: v.exactOptional(list(id, BOUNDS.clauses)),
  shares: v.exactOptional(flag),
  cooldown: v.exactOptional(duration),
  uses: v.exactOptional(v.strictObject({ max: count1, refill: id })),
  linger: v.exactOptional(duration),
  again: v.exactOptional(v.literal("held", "choice")),
  memory: v.exactOptional(clock),
  frames: v.exactOptional(v.strictObject({ startup: duration, active: duration, recovery: duration })),
  opens: v.exactOptional(list(v.strictObject({ gate: id, from: duration, to: duration }), BOUNDS.clauses)),
  modes: v.exactOptional(list(id)),
  clock: v.exactOptional(clock),
  off: v.exactOptional(flag),
  effect: v.exactOptional(v.unknown()),
});

const modeSchema = v.strictObject({ id, name: text, carry: v.exactOptional(flag) });

const switchSchema = v.strictObject({
  when: v.union(
    [
      v.strictObject({ gate: id, turns: v.picklist(["open", "closed"], "choice") }),
      v.strictObject({ move: id }),
    ],
    "no-variant",
  ),
  to: id,
});

const gradeSchema = v.strictObject({
  name: id,
  within: duration,
  early: v.exactOptional(duration),
  late: v.exactOptional(duration),
});

const promptSchema = v.strictObject({
  id,
  name: text,
  ask: list(id, BOUNDS.clauses),
  starts: v.union(
    [
      v.strictObject({ at: duration }),
      v.strictObject({ gate: id }),
      v.strictObject({ prompt: id, on: v.picklist(["success", "failure", "any"], "choice") }),
    ],
    "no-variant",
  ),
  lead: v.exactOptional(duration),
  window: duration,
  target: v.exactOptional(duration),
  grades: v.exactOptional(list(gradeSchema, BOUNDS.clauses)),
  early: v.exactOptional(v.picklist(["ignore", "allow", "fail"], "choice")),
  wrong: v.exactOptional(v.picklist(["ignore", "fail"], "choice")),
  wrongOn: v.exactOptional(list(id, BOUNDS.clauses)),
  draw: v.exactOptional(seed),
  captures: v.exactOptional(list(id, BOUNDS.clauses)),
  opens: v.exactOptional(id),
  modes: v.exactOptional(list(id)),
  clock: v.exactOptional(clock),
  off: v.exactOptional(flag),
});

/** The kit document: all rules of one game or character. Source: frame rules, section 9. */
export const kitSchema = v.strictObject({
  format: v.literal("moss-tap/kit"),
  version: v.literal(1),
  id,
  name: text,
  rate,
  controls: list(controlSchema),
  sticks: v.exactOptional(list(stickSchema)),
  gates: v.exactOptional(list(gateSchema)),
  patterns: list(patternSchema),
  moves: v.exactOptional(list(moveSchema)),
  modes: v.exactOptional(list(modeSchema)),
  start: v.exactOptional(id),
  switches: v.exactOptional(list(switchSchema)),
  prompts: v.exactOptional(list(promptSchema)),
  queue: v.exactOptional(v.picklist(["newest", "all"], "choice")),
  stage: v.exactOptional(v.unknown()),
  assists: v.exactOptional(list(assistSchema)),
});

export type Kit = DeepReadonly<v.InferOutput<typeof kitSchema>>;
export type Control = Kit["controls"][number];
export type Stick = NonNullable<Kit["sticks"]>[number];
export type Gate = NonNullable<Kit["gates"]>[number];
export type Pattern = Kit["patterns"][number];
export type PatternOf<K extends PatternKind> = Extract<Pattern, { readonly kind: K }>;
export type Move = NonNullable<Kit["moves"]>[number];
export type Grade = v.InferOutput<typeof gradeSchema>;
export type Prompt = NonNullable<Kit["prompts"]>[number];
export type Step = PatternOf<"sequence">["steps"][number];
