import * as v from "valibot";
import { countWords } from "../../formats/words";
import { duration } from "../../kit/parts";
import { atLeast, atMost, optional, words } from "../../kit/sentence";
import { askedEventSchema } from "../askedEvent";
import { closeEvent, type ExpectationRecord, type FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "this must happen then". */
export const fields = {
  happens: askedEventSchema,
  at: duration,
  within: v.exactOptional(duration),
};

type Happens = FieldsOf<typeof fields>;

/** The registry record of events that must happen at a time. */
export const record: ExpectationRecord<Happens, "never" | "early" | "late"> = {
  requires: { at: "write a time from the take's start, like 36f" },
  compile({ happens, at: written, within: leeway }, tools) {
    const matcher = tools.match(happens, ["happens"]);
    const at = tools.land(written);
    const within = tools.leeway(leeway, 0);
    return index => {
      const { from, to } = tools.stretch(index.trace);
      let nearest = -1;
      walk(index, matcher, from, to, (_note, f) => {
        if (nearest < 0 || Math.abs(f - at) < Math.abs(nearest - at)) nearest = f;
        return f > at;
      });
      if (nearest < 0) return { ok: false, why: "never" };
      const slip = nearest - at;
      if (Math.abs(slip) <= within) return { ok: true, f: nearest, slip };
      return { ok: false, why: slip < 0 ? "early" : "late", f: nearest, slip };
    };
  },
  describe: ({ happens, at, within }, { event }) => [
    ...closeEvent(event(happens, ["happens"])),
    words(" at "),
    atLeast(at, ["at"], "when it happens"),
    ...optional(within, ["within"], written => [
      words(", give or take "),
      atMost(written, ["within"], "give or take"),
    ]),
  ],
  offers: check => [
    check.within === undefined && {
      words: "… give or take a few frames",
      becomes: { ...check, within: "2f" },
    },
  ],
  failures: {
    never: () => "it never happened",
    early: ({ slip = 0, f }) => `it happened ${countWords(Math.abs(slip), "frame")} too early, on frame ${f}`,
    late: ({ slip = 0, f }) => `it happened ${countWords(Math.abs(slip), "frame")} too late, on frame ${f}`,
  },
  accept: (check, { why, f }) =>
    why === "never" || f === undefined
      ? undefined
      : { words: `${f}f instead of ${check.at}`, becomes: { ...check, at: `${f}f` } },
  rename: (check, { event }) => ({ ...check, happens: event(check.happens) }),
  times: ["at", "within"],
};
