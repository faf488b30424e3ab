import * as v from "valibot";
import { duration, id, patternFields } from "../../kit/parts";

/** Fires when a control comes up soon enough. */
export const tapSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("tap"),
  control: id,
  max: duration,
});
