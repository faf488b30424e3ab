import { BOUNDS } from "../../formats/bounds";
import * as v from "valibot";
import { duration, id, patternFields, some } from "../../kit/parts";

/** Fires when several controls are down together. */
export const chordSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("chord"),
  controls: some(id, BOUNDS.clauses),
  spread: v.exactOptional(duration),
  for: v.exactOptional(duration),
});
