import * as v from "valibot";
import { BOUNDS } from "#core";
import { duration, id, positive, share } from "../parts";

/** How the height of a jump follows the hand. */
const heightSchema = v.variant("by", [
  v.strictObject({ by: v.literal("fixed") }),
  v.strictObject({
    by: v.literal("lift"),
    control: id,
    /** For so long its gravity is less, beginning so long after the launch; it ends when the hand lets go, unless it keeps on. */
    for: duration,
    from: v.exactOptional(duration),
    /** The share of its gravity that is left meanwhile; none where it is not said. */
    share: v.exactOptional(share),
    keeps: v.exactOptional(v.boolean()),
  }),
  v.strictObject({ by: v.literal("float"), control: id, share }),
  v.strictObject({ by: v.literal("cut"), control: id, to: share }),
  v.strictObject({ by: v.literal("charged") }),
]);

/** A body on beams of tiles. Lengths in tiles, speeds in tiles a second, accelerations in tiles a second a second. */
export const runnerSchema = v.strictObject({
  kind: v.literal("runner"),
  /** How large a tile is drawn, and what the px of the facts are counted in. */
  tilePx: v.pipe(v.number(), v.minValue(4), v.maxValue(256)),
  /** Rows of text: "#" a beam, "@" where the body starts, letters a zone, anything else air. */
  level: v.pipe(
    v.array(v.pipe(v.string(), v.maxLength(BOUNDS.levelTiles))),
    v.minLength(1),
    v.maxLength(BOUNDS.levelRows),
  ),
  /** Letters of the level and the gate each zone opens while the body is in it. */
  zones: v.exactOptional(v.record(v.string(), id)),
  run: v.strictObject({
    left: id,
    right: id,
    speed: positive,
    accel: positive,
    /** How fast it comes to rest, and how fast it turns about; as it speeds up where they are not said. */
    brake: v.exactOptional(positive),
    turn: v.exactOptional(positive),
    /** The same three in the air; as on the ground where they are not said. */
    air: v.exactOptional(
      v.strictObject({
        accel: v.exactOptional(positive),
        brake: v.exactOptional(positive),
        turn: v.exactOptional(positive),
      }),
    ),
    /** A walk goes on for so long after its direction is let go; a run stops at once. */
    linger: v.exactOptional(duration),
  }),
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

export type RunnerDocument = v.InferOutput<typeof runnerSchema>;
