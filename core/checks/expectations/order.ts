import * as v from "valibot";
import { countWords } from "../../formats/words";
import { list } from "../../kit/parts";
import { words } from "../../kit/sentence";
import { askedEventSchema } from "../askedEvent";
import type { ExpectationRecord, FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "these must happen one after the other". */
export const fields = { order: v.pipe(list(askedEventSchema), v.minLength(2, "two")) };

type Order = FieldsOf<typeof fields>;

/** The registry record of events that must happen in an order. */
export const record: ExpectationRecord<Order, "broken"> = {
  compile({ order }, { match, stretch }) {
    const matchers = order.map((event, k) => match(event, ["order", k]));
    return index => {
      const { from, to } = stretch(index.trace);
      const used = new Set<number>();
      let last = from;
      for (const matcher of matchers) {
        let found = -1;
        walk(index, matcher, last, to, note => {
          if (used.has(note)) return false;
          found = note;
          return true;
        });
        if (found < 0) return { ok: false, why: "broken", reached: used.size };
        used.add(found);
        last = index.trace.frame[found]!;
      }
      return { ok: true };
    };
  },
  describe: ({ order }, { event }) =>
    order.flatMap((item, k) => [...(k > 0 ? [words(", then ")] : []), ...event(item, ["order", k])]),
  offers: () => [],
  failures: { broken: ({ reached = 0 }) => `only ${countWords(reached, "event")} came in that order` },
  accept: () => undefined,
  rename: (check, { event }) => ({ ...check, order: check.order.map(event) }),
  times: [],
};
