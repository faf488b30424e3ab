import * as v from "valibot";
import { BOUNDS, measureFirst } from "#core";
import { duration, id, list, positive, share } from "../parts";

const place = v.pipe(v.number(), v.minValue(-4096), v.maxValue(4096));

/** The rule by which the height of a jump follows its control. */
const heightSchema = v.variant("by", [
  v.strictObject({ by: v.literal("fixed") }),
  v.strictObject({
    by: v.literal("lift"),
    control: id,
    /** A period of reduced gravity after the launch; it ends on release, unless it keeps on. */
    for: duration,
    from: v.exactOptional(duration),
    /** The share of gravity that remains meanwhile; 0 if absent. */
    share: v.exactOptional(share),
    keeps: v.exactOptional(v.boolean()),
  }),
  v.strictObject({ by: v.literal("float"), control: id, share }),
  v.strictObject({ by: v.literal("cut"), control: id, to: share }),
  v.strictObject({ by: v.literal("charged") }),
]);

/**
 * A body on solid tiles. Lengths in tiles, speeds in tiles per second, accelerations in tiles per second
 * squared.
 */
export const runnerSchema = v.strictObject({
  kind: v.literal("runner"),
  /** The drawn size of a tile, in pixels, also used for figures in px. */
  tilePx: v.pipe(v.number(), v.minValue(4), v.maxValue(256)),
  /** Rows of text: "#" a solid tile, "-" one that holds from above only, "@" the body's start, letters are zones, anything else is air. */
  level: measureFirst(
    v.pipe(
      v.array(v.pipe(v.string(), v.maxLength(BOUNDS.levelTiles))),
      v.minLength(1),
      v.maxLength(BOUNDS.levelRows),
    ),
  ),
  /**
   * Beams that move: each holds from above only, and carries the body on it. Its left end and its top go from (x, y) to
   * (x + across, y + up) and back in the time `every` of the game clock; y is counted from the bottom of the level.
   */
  beams: v.exactOptional(
    list(
      v.strictObject({
        x: place,
        y: place,
        width: v.pipe(v.number(), v.minValue(0.5), v.maxValue(64)),
        across: place,
        up: place,
        every: duration,
        /** Whether a jump from it takes its speed along. */
        throws: v.exactOptional(v.literal(true)),
      }),
      BOUNDS.clauses,
    ),
  ),
  /** Letters of the level and the gate each zone opens while the body is in it. */
  zones: v.exactOptional(v.record(v.string(), id)),
  run: v.strictObject({
    left: id,
    right: id,
    /** The controls that aim a dash up and down; it is aimed to the sides only if absent. */
    up: v.exactOptional(id),
    down: v.exactOptional(id),
    speed: positive,
    accel: positive,
    /** The rates of braking and of turning around; the rate of acceleration if absent. */
    brake: v.exactOptional(positive),
    turn: v.exactOptional(positive),
    /** The same three rates in the air; those on the ground if absent. */
    air: v.exactOptional(
      v.strictObject({
        accel: v.exactOptional(positive),
        brake: v.exactOptional(positive),
        turn: v.exactOptional(positive),
      }),
    ),
    /** The time a walk continues after its direction is released. */
    linger: v.exactOptional(duration),
    /**
     * Who steers: the keys (the default), or the rules: a direction then moves the body only while some pattern that is
     * active has it among its controls and does not see it hidden.
     */
    steers: v.exactOptional(v.picklist(["keys", "rules"])),
  }),
  /** Gates that keep every direction from the body while one of them is open: stun, attack lock, root. */
  halts: v.exactOptional(v.pipe(v.array(id), v.maxLength(BOUNDS.clauses))),
  fall: v.strictObject({
    up: positive,
    down: positive,
    most: positive,
    /** Around the top, while it rises or falls slower than `within`, only a share of its gravity. */
    hang: v.exactOptional(v.strictObject({ within: positive, share })),
    /**
     * A rising body that would stop at the edge of a tile is moved aside instead, by at most so many pixels of the level, of
     * which a tile has `tilePx`.
     */
    corner: v.exactOptional(v.pipe(v.number(), v.minValue(0), v.maxValue(256))),
    /** While a gate is open, such as that of a wall, it falls at most so fast. */
    slide: v.exactOptional(v.strictObject({ gate: id, most: positive })),
  }),
  height: heightSchema,
  gates: v.strictObject({
    footing: v.exactOptional(id),
    rising: v.exactOptional(id),
    falling: v.exactOptional(id),
    wall: v.exactOptional(id),
    ceiling: v.exactOptional(id),
  }),
  /** The time for which the ground is still reported after the body has left it, as games do. */
  groundLag: v.exactOptional(duration),
});

export type RunnerDocument = v.InferOutput<typeof runnerSchema>;
