import * as v from "valibot";
import { id, list } from "../parts";

const factor = v.pipe(v.number(), v.minValue(0.1), v.maxValue(10));

/** Prompts on ropes: the press each one asks for is drawn from a list by a seeded generator. */
export const ropesSchema = v.strictObject({
  kind: v.literal("ropes"),
  seed: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(Number.MAX_SAFE_INTEGER)),
  /** Prompts whose answer is drawn, and the patterns to draw from; with none, nothing is drawn. */
  draws: v.exactOptional(list(id)),
  pool: v.exactOptional(list(id)),
  /** The factor that stretches every window and grade of every prompt. */
  ease: v.exactOptional(factor),
  /**
   * Prompts that are easier or harder: the factor of their windows and grades, multiplied with the general
   * ease.
   */
  eases: v.exactOptional(list(v.strictObject({ prompt: id, times: factor }))),
});

export type RopesDocument = v.InferOutput<typeof ropesSchema>;
