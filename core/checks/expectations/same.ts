import * as v from "valibot";
import { countWords } from "../../formats/words";
import { duration } from "../../kit/parts";
import { atMost, optional, words } from "../../kit/sentence";
import { keptSchema, type KeptEvent } from "../askedEvent";
import { landTime } from "../checkTimes";
import { listStory } from "../story";
import type { ExpectationRecord, FieldsOf } from "./expectation";

/** The fields of "this take stays as it is". */
export const fields = {
  same: v.array(keptSchema, "type"),
  slip: v.exactOptional(duration),
};

type Same = FieldsOf<typeof fields>;

/** The registry record of takes whose story must stay the same. */
export const record: ExpectationRecord<Same, "differs"> = {
  compile({ same, slip: leeway }, tools) {
    const { program, kitRateHz, stretch } = tools;
    same.forEach(([, kind, id], k) => {
      tools.indexOf(kind === "performed" ? "moves" : "prompts", id, ["same", k, 2]);
    });
    const slip = tools.leeway(leeway, 0);
    const frames = same.map(([f]) => landTime(`${f}f`, kitRateHz, program.rateHz));
    return ({ trace }) => {
      const { from, to } = stretch(trace);
      const story = listStory(program, trace).filter(([f]) => f >= from && f <= to);
      let reached = 0;
      while (reached < same.length && reached < story.length) {
        const [, kind, id, outcome] = same[reached]!;
        const now = story[reached]!;
        const isAlike = now[1] === kind && now[2] === id && now[3] === outcome;
        if (!isAlike || Math.abs(now[0] - frames[reached]!) > slip) break;
        reached++;
      }
      if (reached === same.length && reached === story.length) return { ok: true };
      return { ok: false, why: "differs", f: story[reached]?.[0] ?? frames[reached]!, reached };
    };
  },
  describe({ same, slip }) {
    const things = same.length === 1 ? "the one thing happens" : `the ${same.length} things happen`;
    return [
      words(`${things} as kept`),
      ...optional(slip, ["slip"], written => [
        words(", give or take "),
        atMost(written, ["slip"], "give or take"),
      ]),
    ];
  },
  offers: check => [
    check.slip === undefined && { words: "… give or take a few frames", becomes: { ...check, slip: "2f" } },
  ],
  failures: {
    differs: ({ f, reached = 0 }) =>
      `the events differ from frame ${f} on, after ${countWords(reached, "event")} that agree`,
  },
  accept: (check, _verdict, story) => ({
    words: `the present ${countWords(story.length, "event")} instead of the kept ${check.same.length}`,
    becomes: { ...check, same: [...story] },
  }),
  rename: (check, tools) => ({ ...check, same: check.same.map(tools.kept) }),
  times: ["slip"],
  changeRate: (check, inFrames) => ({
    ...check,
    same: check.same.map(([f, ...rest]) => [inFrames(f), ...rest] as unknown as KeptEvent),
  }),
};
