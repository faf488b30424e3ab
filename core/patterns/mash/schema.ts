import { BOUNDS } from "../../formats/bounds";
import * as v from "valibot";
import { count1, duration, flag, id, patternFields, some } from "../../kit/parts";

/** Fires when presses follow each other fast enough. */
export const mashSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("mash"),
  controls: some(id, BOUNDS.clauses),
  count: count1,
  within: duration,
  alternate: v.exactOptional(flag),
});
