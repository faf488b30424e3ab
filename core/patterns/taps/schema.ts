import * as v from "valibot";
import { count1, duration, id, patternFields } from "../../kit/parts";

/** Counts presses of one control that follow each other closely. */
export const tapsSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("taps"),
  control: id,
  count: count1,
  gap: duration,
  max: v.exactOptional(duration),
  answer: v.picklist(["nth", "each", "final"], "choice"),
});
