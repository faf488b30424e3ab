import * as v from "valibot";
import { duration, id, list, patternFields, text } from "../../kit/parts";

/** Measures how long a control is down, through a curve onto a range, with levels on the way. */
export const chargeSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("charge"),
  control: id,
  from: v.exactOptional(duration),
  full: duration,
  min: v.exactOptional(duration),
  levels: v.exactOptional(list(v.strictObject({ name: text, at: duration }))),
  curve: v.exactOptional(text),
  output: v.exactOptional(v.tuple([v.number("type"), v.number("type")], "type")),
  fire: v.picklist(["release", "full", "either"], "choice"),
  limit: v.exactOptional(duration),
  cancel: v.exactOptional(list(id)),
});
