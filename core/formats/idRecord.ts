import * as v from "valibot";
import { id } from "../kit/parts";

/**
 * A schema for an object whose keys are ids: every key counts, also those that languages keep for themselves, such as
 * `constructor`, which Valibot's own record passes over. Faults carry their key, as in any object.
 */
export function idRecord<T extends v.GenericSchema>(
  value: T,
): v.GenericSchema<Record<string, v.InferOutput<T>>> {
  const plain = v.record(id, value, "type");
  const asMap = v.map(id, value, "type");
  const isPlain = (input: unknown): input is object =>
    typeof input === "object" && input !== null && !Array.isArray(input);
  return {
    ...plain,
    "~run"(dataset: { value: unknown }, config: v.Config<v.BaseIssue<unknown>>) {
      if (!isPlain(dataset.value)) {
        v._addIssue(plain, "type", dataset as v.UnknownDataset, config);
        return dataset;
      }
      const run = asMap["~run"]({ value: new Map(Object.entries(dataset.value)) }, config);
      const entries = run.value instanceof Map ? Object.fromEntries(run.value) : dataset.value;
      return { ...run, value: entries };
    },
  } as unknown as v.GenericSchema<Record<string, v.InferOutput<T>>>;
}
