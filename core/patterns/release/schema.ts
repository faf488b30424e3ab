import * as v from "valibot";
import { id, patternFields } from "../../kit/parts";

/** Fires when a control comes up. */
export const releaseSchema = v.strictObject({ ...patternFields, kind: v.literal("release"), control: id });
