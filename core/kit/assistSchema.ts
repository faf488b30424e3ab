import * as v from "valibot";
import { flag, id, text } from "./parts";

/** The scale of windows in percent; 100 leaves them unchanged. */
const percent = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(100, "range"),
  v.maxValue(1000, "range"),
);

/** A variation of a kit for players who need more time or less force. */
export const assistSchema = v.strictObject({
  id,
  name: text,
  windows: v.exactOptional(percent),
  gaps: v.exactOptional(percent),
  toggles: v.exactOptional(flag),
  mashes: v.exactOptional(flag),
  /** A layout of the kit that is applied along with the assist, such as a one-handed one. */
  layout: v.exactOptional(id),
});

export type Assist = Readonly<v.InferOutput<typeof assistSchema>>;
