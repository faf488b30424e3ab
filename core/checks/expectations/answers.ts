import * as v from "valibot";
import { countWords } from "../../formats/words";
import { duration, id } from "../../kit/parts";
import { atMost, optional, ref, words } from "../../kit/sentence";
import { notes } from "../../trace/noteKinds";
import type { Matcher } from "../matchEvents";
import type { ExpectationRecord, FieldsOf } from "./expectation";
import { walk } from "./walk";

/** The fields of "every press of this control must be answered". */
export const fields = {
  answers: id,
  within: v.exactOptional(duration),
  move: v.exactOptional(id),
};

type Answers = FieldsOf<typeof fields>;

/** The registry record of controls whose every press must be answered by a performed move. */
export const record: ExpectationRecord<Answers, "unanswered"> = {
  compile({ answers, move, within: leeway }, tools) {
    const control = tools.indexOf("controls", answers, ["answers"]);
    const wanted = move === undefined ? -1 : tools.indexOf("moves", move, ["move"]);
    const within = tools.leeway(leeway, Infinity);
    const presses: Matcher = {
      kind: notes.edge.code,
      subject: control,
      isMatch: (trace, note) => notes.edge.isDown(trace, note) === 1,
    };
    return index => {
      const { from, to } = tools.stretch(index.trace);
      const answered = new Set<number>();
      for (const { edge, f, move: by } of index.answersTo(control))
        if (f - edge <= within && (move === undefined || by === wanted)) answered.add(edge);
      let count = 0;
      let first = -1;
      let isPressed = false;
      walk(index, presses, from, to, (_note, f) => {
        isPressed = true;
        if (answered.has(f)) return;
        if (count === 0) first = f;
        count++;
      });
      if (count > 0) return { ok: false, why: "unanswered", f: first, count };
      return isPressed ? { ok: true, count } : { ok: true, count, vacuous: true };
    };
  },
  describe: ({ answers, move, within }) => [
    words("every press of "),
    ref("control", answers, ["answers"], "control"),
    words(" is answered"),
    ...optional(move, ["move"], by => [words(" by "), ref("move", by, ["move"], "move")]),
    ...optional(within, ["within"], written => [
      words(" within "),
      atMost(written, ["within"], "answered within"),
    ]),
  ],
  offers: (check, kit) => [
    check.within === undefined && {
      words: "… give or take a few frames",
      becomes: { ...check, within: "2f" },
    },
    check.move === undefined &&
      (kit.moves?.length ?? 0) > 0 && {
        words: "… by one move alone",
        becomes: { ...check, move: kit.moves![0]!.id },
      },
  ],
  failures: {
    unanswered: ({ count = 0, f }) =>
      `${countWords(count, "press was", "presses were")} not answered, the first on frame ${f}`,
  },
  accept: () => undefined,
  rename: (check, tools) => ({
    ...check,
    answers: tools.id("controls", check.answers),
    ...(check.move === undefined ? {} : { move: tools.id("moves", check.move) }),
  }),
  times: ["within"],
};
