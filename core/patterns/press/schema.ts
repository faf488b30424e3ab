import * as v from "valibot";
import { duration, duration1, id, patternFields } from "../../kit/parts";

/** Fires when a control goes down and optionally repeats while it stays down. */
export const pressSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("press"),
  control: id,
  repeat: v.exactOptional(v.strictObject({ after: duration, every: duration1 })),
});
