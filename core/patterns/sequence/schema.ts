import * as v from "valibot";
import { BOUNDS } from "../../formats/bounds";
import { duration, id, list, longText, patternFields, some } from "../../kit/parts";

const own = { gap: v.exactOptional(duration), after: v.exactOptional(duration) };

/** One step of a sequence; its form is identified by its field. */
export const stepSchema = v.union(
  [
    v.strictObject({ press: id, ...own }),
    v.strictObject({ release: id, ...own }),
    v.strictObject({ hold: id, for: duration, ...own }),
    v.strictObject({ dir: longText(BOUNDS.idLetters + 2), for: v.exactOptional(duration), ...own }),
    v.strictObject({ together: some(id, BOUNDS.clauses), within: duration, ...own }),
  ],
  "no-variant",
);

/** Fires when its steps have been made in order, each soon enough after the previous one. */
export const sequenceSchema = v.strictObject({
  ...patternFields,
  kind: v.literal("sequence"),
  steps: some(stepSchema, BOUNDS.steps),
  gap: duration,
  total: v.exactOptional(duration),
  others: v.exactOptional(v.picklist(["ignore", "break"], "choice")),
  cancel: v.exactOptional(list(id)),
});
