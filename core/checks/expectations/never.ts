import { words } from "../../kit/sentence";
import { askedEventSchema } from "../askedEvent";
import type { ExpectationRecord, FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "this must never happen". */
export const fields = { never: askedEventSchema };

type Never = FieldsOf<typeof fields>;

/** The registry record of events that must not happen. */
export const record: ExpectationRecord<Never, "happened"> = {
  compile({ never }, { match, stretch }) {
    const matcher = match(never, ["never"]);
    return index => {
      const { from, to } = stretch(index.trace);
      let found = -1;
      walk(index, matcher, from, to, (_note, f) => {
        found = f;
        return true;
      });
      return found < 0 ? { ok: true } : { ok: false, why: "happened", f: found };
    };
  },
  describe: ({ never }, { event }) => [words("must not happen: "), ...event(never, ["never"])],
  offers: () => [],
  failures: { happened: ({ f }) => `it happened, first on frame ${f}` },
  accept: () => undefined,
  rename: (check, { event }) => ({ ...check, never: event(check.never) }),
  times: [],
};
