import * as v from "valibot";
import { BOUNDS } from "./bounds";
import { id } from "../kit/parts";

/**
 * A schema for an object whose keys are ids, or other texts by `key`. It validates every key, including `constructor` and other names
 * that Valibot's own record skips. Issues carry their key. If there are more keys than a list may have items,
 * none is read.
 */
export function idRecord<T extends v.GenericSchema>(
  value: T,
  key: v.GenericSchema<string, string> = id,
): v.GenericSchema<Record<string, v.InferOutput<T>>> {
  const plain = v.record(key, value, "type");
  const asMap = v.map(key, value, "type");
  const few = v.maxEntries<Record<string, unknown>, number, string>(BOUNDS.items, "many");
  const isPlain = (input: unknown): input is object =>
    typeof input === "object" && input !== null && !Array.isArray(input);
  return {
    ...plain,
    "~run"(dataset: { value: unknown }, config: v.Config<v.BaseIssue<unknown>>) {
      if (!isPlain(dataset.value)) {
        v._addIssue(plain, "type", dataset as v.UnknownDataset, config);
        return dataset;
      }
      if (Object.keys(dataset.value).length > BOUNDS.items)
        return few["~run"]({ typed: true, value: dataset.value as Record<string, unknown> }, config);
      const run = asMap["~run"]({ value: new Map(Object.entries(dataset.value)) }, config);
      const entries = run.value instanceof Map ? Object.fromEntries(run.value) : dataset.value;
      return { ...run, value: entries };
    },
  } as unknown as v.GenericSchema<Record<string, v.InferOutput<T>>>;
}
