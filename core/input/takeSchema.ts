import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { idRecord } from "../formats/idRecord";
import { BOUNDS } from "../formats/bounds";
import { id, longText, rate, text, unit } from "../kit/parts";

/** The absolute bound of a position in time; no real take comes near it. */
const FARTHEST = 1e9;

const gapMs = v.pipe(v.number("range"), v.minValue(0, "range"), v.maxValue(FARTHEST, "range"));
const x = v.pipe(v.number("range"), v.minValue(0, "frames"), v.maxValue(FARTHEST, "frames"));

/** Returns whether a value is a pair of numbers within their bounds. */
function isSoundPair(pair: unknown, isValue: (value: number) => boolean): boolean {
  if (!Array.isArray(pair) || pair.length !== 2) return false;
  const at: unknown = pair[0];
  const value: unknown = pair[1];
  return typeof at === "number" && at >= 0 && at <= FARTHEST && typeof value === "number" && isValue(value);
}

/**
 * A lane: pairs of a position in time and a value. A valid lane is checked in one fast pass, since it may
 * hold a million pairs; of an invalid one the invalid pairs are validated one by one until enough issues are
 * found.
 */
function lane<T extends v.GenericSchema<unknown, number>>(value: T, isValue: (value: number) => boolean) {
  const pairs = v.array(v.tuple([x, value], "type"), "type");
  return {
    ...pairs,
    "~run"(dataset: v.UnknownDataset, config: v.Config<v.BaseIssue<unknown>>) {
      const { value } = dataset;
      if (!Array.isArray(value)) return pairs["~run"](dataset, config);
      const issues: v.BaseIssue<unknown>[] = [];
      for (let k = 0; k < value.length && issues.length < BOUNDS.issues; k++) {
        const input: unknown = value[k];
        if (isSoundPair(input, isValue)) continue;
        for (const issue of pairs.item["~run"]({ value: input }, config).issues ?? []) {
          const step = { type: "array", origin: "value", input: value, key: k, value: input } as const;
          issues.push({ ...issue, path: [step, ...(issue.path ?? [])] });
        }
      }
      return issues.length === 0
        ? { typed: true, value }
        : { typed: false, value, issues: issues as [v.BaseIssue<unknown>, ...v.BaseIssue<unknown>[]] };
    },
  } as typeof pairs;
}

/** The take document: recorded input, one lane per control. Source: frame rules, section 9. */
export const takeSchema = v.strictObject({
  format: v.literal("moss-tap/take"),
  version: v.literal(1),
  id,
  name: text,
  kit: v.exactOptional(text),
  rate,
  frames: v.pipe(v.number("frames"), v.minValue(0, "frames"), v.maxValue(FARTHEST, "frames")),
  lanes: idRecord(lane(unit, value => value >= 0 && value <= 1)),
  gates: v.exactOptional(idRecord(lane(v.picklist([0, 1], "choice"), value => value === 0 || value === 1))),
  speed: v.exactOptional(
    lane(
      v.pipe(
        v.number("range"),
        v.integer("whole"),
        v.minValue(0, "range"),
        v.maxValue(BOUNDS.speedPercent, "range"),
      ),
      value => Number.isInteger(value) && value >= 0 && value <= BOUNDS.speedPercent,
    ),
  ),
  player: v.exactOptional(text),
  device: v.exactOptional(text),
  session: v.exactOptional(text),
  note: v.exactOptional(longText(BOUNDS.noteLetters)),
  stage: v.exactOptional(v.literal("none", "choice")),
  gaps: v.exactOptional(lane(gapMs, value => value >= 0 && value <= FARTHEST)),
  unmeant: v.exactOptional(idRecord(v.array(x, "type"))),
  did: v.exactOptional(idRecord(v.array(x, "type"))),
  didOf: v.exactOptional(v.literal("listed", "choice")),
});

export type Take = DeepReadonly<v.InferOutput<typeof takeSchema>>;
export type Lane = Take["lanes"][string];
