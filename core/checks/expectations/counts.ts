import * as v from "valibot";
import { fault } from "../../formats/issue";
import { countWords } from "../../formats/words";
import { count as countPart, optional, words } from "../../kit/sentence";
import { askedEventSchema, times } from "../askedEvent";
import { closeEvent, type ExpectationRecord, type FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "this must happen so many times". */
export const fields = {
  counts: askedEventSchema,
  min: v.exactOptional(times),
  max: v.exactOptional(times),
};

type Counts = FieldsOf<typeof fields>;

/** The registry record of events that must happen a number of times. */
export const record: ExpectationRecord<Counts, "too-few" | "too-many"> = {
  verify({ min, max }, path) {
    if (min === undefined && max === undefined)
      return [fault("missing", [...path, "min"], { hint: "write a value for min, max or both" })];
    if (min !== undefined && max !== undefined && min > max)
      return [fault("min-above-max", [...path, "min"], { min, max })];
    return [];
  },
  compile({ counts, min, max = Infinity }, { match, stretch, idle }) {
    const matcher = match(counts, ["counts"]);
    const isIdle = idle(counts);
    return index => {
      const { from, to } = stretch(index.trace);
      let count = 0;
      walk(index, matcher, from, to, () => void count++);
      if (count < (min ?? 0)) return { ok: false, why: "too-few", count };
      if (count > max) return { ok: false, why: "too-many", count };
      return min === undefined && isIdle(index) ? { ok: true, count, vacuous: true } : { ok: true, count };
    };
  },
  describe: ({ counts, min, max }, { event }) => [
    ...closeEvent(event(counts, ["counts"])),
    ...optional(min, ["min"], least => [words(" at least "), countPart(least, ["min"], "fewest times", 0)]),
    ...optional(max, ["max"], most => [
      words(min === undefined ? " at most " : " and at most "),
      countPart(most, ["max"], "most times", 0),
    ]),
    words((max ?? min) === 1 ? " time" : " times"),
  ],
  offers: check => [
    check.min === undefined && { words: "… at least so often", becomes: { ...check, min: 1 } },
    check.max === undefined && { words: "… at most so often", becomes: { ...check, max: 1 } },
  ],
  failures: {
    "too-few": ({ count = 0 }) => `it happened ${countWords(count, "time")}, too few`,
    "too-many": ({ count = 0 }) => `it happened ${countWords(count, "time")}, too many`,
  },
  accept(check, { why, count }) {
    if (count === undefined) return undefined;
    if (why === "too-few")
      return {
        words: `${countWords(count, "time")} instead of at least ${check.min}`,
        becomes: { ...check, min: count },
      };
    return {
      words: `${countWords(count, "time")} instead of at most ${check.max}`,
      becomes: { ...check, max: count },
    };
  },
  rename: (check, { event }) => ({ ...check, counts: event(check.counts) }),
  times: [],
};
