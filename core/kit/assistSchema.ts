import * as v from "valibot";
import { flag, id, text } from "./parts";

/** How much longer windows get, percent: 100 is as they are. */
const percent = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(100, "range"),
  v.maxValue(1000, "range"),
);

/** A version of a kit for players who need more time or less force. */
export const assistSchema = v.strictObject({
  id,
  name: text,
  windows: v.exactOptional(percent),
  gaps: v.exactOptional(percent),
  toggles: v.exactOptional(flag),
  mashes: v.exactOptional(flag),
  /** A layout kept with the kit that is taken up with it, such as one for one hand. */
  layout: v.exactOptional(id),
});

export type Assist = Readonly<v.InferOutput<typeof assistSchema>>;
