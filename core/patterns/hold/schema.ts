import { BOUNDS } from "../../formats/bounds";
import * as v from "valibot";
import { duration, duration1, id, list, patternFields } from "../../kit/parts";

/** Fires when a control has been down long enough: on reaching the length, or on release after it. */
export const holdSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("hold"),
  control: id,
  for: duration,
  fire: v.picklist(["reach", "release"], "choice"),
  max: v.exactOptional(duration),
  repeat: v.exactOptional(v.strictObject({ every: duration1 })),
  cancel: v.exactOptional(list(id, BOUNDS.clauses)),
});
