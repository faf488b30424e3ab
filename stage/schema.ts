import * as v from "valibot";

const duration = v.pipe(v.string(), v.regex(/^\d+(?:f|(?:\.\d{1,3})?ms)$/));
const id = v.pipe(v.string(), v.nonEmpty());
const positive = v.pipe(v.number(), v.minValue(0), v.maxValue(1000));
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** How the height of a jump follows the hand. */
const heightSchema = v.variant("by", [
  v.strictObject({ by: v.literal("fixed") }),
  v.strictObject({ by: v.literal("lift"), control: id, for: duration }),
  v.strictObject({ by: v.literal("float"), control: id, share }),
  v.strictObject({ by: v.literal("cut"), control: id, to: share }),
  v.strictObject({ by: v.literal("charged") }),
]);

/** A body on beams of tiles. Lengths in tiles, speeds in tiles a second, accelerations in tiles a second a second. */
const runnerSchema = v.strictObject({
  kind: v.literal("runner"),
  /** How large a tile is drawn, and what the px of the facts are counted in. */
  tilePx: v.pipe(v.number(), v.minValue(4), v.maxValue(256)),
  /** Rows of text: "#" a beam, "@" where the body starts, letters a zone, anything else air. */
  level: v.pipe(v.array(v.string()), v.minLength(1)),
  /** Letters of the level and the gate each zone opens while the body is in it. */
  zones: v.exactOptional(v.record(v.string(), id)),
  run: v.strictObject({ left: id, right: id, speed: positive, accel: positive }),
  fall: v.strictObject({ up: positive, down: positive, most: positive }),
  height: heightSchema,
  gates: v.strictObject({
    footing: v.exactOptional(id),
    rising: v.exactOptional(id),
    falling: v.exactOptional(id),
    wall: v.exactOptional(id),
    ceiling: v.exactOptional(id),
  }),
  /** How long the ground is still reported after the body has left it, as games do. */
  groundLag: v.exactOptional(duration),
});

/** A fighter and a clockwork opponent that strikes on a script. */
const duelSchema = v.strictObject({
  kind: v.literal("duel"),
  /** The clockwork's strikes, by when they begin; the script begins again after `every`. */
  script: v.array(
    v.strictObject({
      at: duration,
      does: v.picklist(["strike", "guard", "away"]),
      for: v.exactOptional(duration),
    }),
  ),
  every: duration,
  strike: v.strictObject({ startup: duration, active: duration, recovery: duration }),
  /** How long a hit keeps the fighter from anything, and how long the game stands still at a hit. */
  stun: duration,
  hitStop: duration,
  gates: v.strictObject({ hit: v.exactOptional(id), blocked: v.exactOptional(id) }),
});

/** Prompts on ropes: which press each asks for is drawn from a list by chance that a seed decides. */
const ropesSchema = v.strictObject({
  kind: v.literal("ropes"),
  seed: v.pipe(v.number(), v.integer(), v.minValue(0)),
  /** Prompts whose answer is drawn, and the patterns it is drawn from; none are drawn where this is empty. */
  draws: v.exactOptional(v.array(id)),
  pool: v.exactOptional(v.array(id)),
  /** Every window and grade of every prompt is this many times as long. */
  ease: v.exactOptional(v.pipe(v.number(), v.minValue(0.1), v.maxValue(10))),
});

export const stageSchema = v.variant("kind", [runnerSchema, duelSchema, ropesSchema]);

/** What a move does to the body, as the kit's `effect` field says it. Speeds in tiles a second. */
export const effectSchema = v.union([
  v.strictObject({ leap: v.union([positive, v.literal("output")]) }),
  v.strictObject({ lift: positive, for: duration }),
  v.strictObject({ float: share, for: duration }),
  v.strictObject({ run: positive }),
  v.strictObject({ step: v.number() }),
  v.strictObject({ dash: positive, for: duration }),
  v.strictObject({ strike: positive }),
  v.strictObject({ parry: duration }),
]);

export type StageDocument = v.InferOutput<typeof stageSchema>;
export type RunnerDocument = Extract<StageDocument, { kind: "runner" }>;
export type DuelDocument = Extract<StageDocument, { kind: "duel" }>;
export type RopesDocument = Extract<StageDocument, { kind: "ropes" }>;
export type Effect = v.InferOutput<typeof effectSchema>;
export type HeightBy = RunnerDocument["height"]["by"];
