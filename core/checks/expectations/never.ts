import { words } from "../../kit/sentence";
import { askedEventSchema } from "../askedEvent";
import type { ExpectationRecord, FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "this must never happen". */
export const fields = { never: askedEventSchema };

type Never = FieldsOf<typeof fields>;

/** The registry record of events that must not happen. */
export const record: ExpectationRecord<Never, "happened"> = {
  compile({ never }, { match, stretch, idle }) {
    const matcher = match(never, ["never"]);
    const isIdle = idle(never);
    return index => {
      const { from, to } = stretch(index.trace);
      let found = -1;
      walk(index, matcher, from, to, (_note, f) => {
        found = f;
        return true;
      });
      if (found >= 0) return { ok: false, why: "happened", f: found };
      return isIdle(index) ? { ok: true, vacuous: true } : { ok: true };
    };
  },
  describe: ({ never }, { event }) => [words("must not happen: "), ...event(never, ["never"])],
  offers: () => [],
  failures: { happened: ({ f }) => `it happened, first on frame ${f}` },
  accept: () => undefined,
  rename: (check, { event }) => ({ ...check, never: event(check.never) }),
  times: [],
  namesUnwanted: true,
};
