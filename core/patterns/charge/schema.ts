import * as v from "valibot";
import { BOUNDS } from "../../formats/bounds";
import { duration, figure, id, list, longText, patternFields, text } from "../../kit/parts";

/** Measures how long a control is down and maps it through a curve onto a range, with levels on the way. */
export const chargeSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("charge"),
  control: id,
  from: v.exactOptional(duration),
  full: duration,
  min: v.exactOptional(duration),
  levels: v.exactOptional(list(v.strictObject({ name: text, at: duration }), BOUNDS.clauses)),
  curve: v.exactOptional(longText(BOUNDS.curveLetters)),
  output: v.exactOptional(v.tuple([figure, figure], "type")),
  fire: v.picklist(["release", "full", "either"], "choice"),
  limit: v.exactOptional(duration),
  cancel: v.exactOptional(list(id, BOUNDS.clauses)),
});
