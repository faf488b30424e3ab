import * as v from "valibot";
import { id, list } from "../parts";

const factor = v.pipe(v.number(), v.minValue(0.1), v.maxValue(10));

/** Prompts on ropes: which press each asks for is drawn from a list by chance that a seed decides. */
export const ropesSchema = v.strictObject({
  kind: v.literal("ropes"),
  seed: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(Number.MAX_SAFE_INTEGER)),
  /** Prompts whose answer is drawn, and the patterns it is drawn from; none are drawn where this is empty. */
  draws: v.exactOptional(list(id)),
  pool: v.exactOptional(list(id)),
  /** Every window and grade of every prompt is this many times as long. */
  ease: v.exactOptional(factor),
  /** Prompts that are easier or harder than the others: their windows and grades are this many times as long, on top of the ease of all. */
  eases: v.exactOptional(list(v.strictObject({ prompt: id, times: factor }))),
});

export type RopesDocument = v.InferOutput<typeof ropesSchema>;
