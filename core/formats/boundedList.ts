import * as v from "valibot";

interface MaxLength {
  readonly requirement: number;
  readonly "~run": (dataset: object, config: v.Config<v.BaseIssue<unknown>>) => object;
}

/**
 * Returns the same schema of a list, with at most so many items, but measured before its items are validated:
 * a list that is too long is one issue, however many items it has and however wrong they are.
 */
export function measureFirst<T extends v.GenericSchema & { readonly pipe: readonly object[] }>(list: T): T {
  const step = list.pipe.find(action => (action as { type?: string }).type === "max_length");
  if (!step) throw new Error("this list has no greatest length");
  const length = step as MaxLength;
  return {
    ...list,
    "~run"(dataset: v.UnknownDataset, config: v.Config<v.BaseIssue<unknown>>) {
      const { value } = dataset;
      return Array.isArray(value) && value.length > length.requirement
        ? length["~run"]({ typed: true, value }, config)
        : list["~run"](dataset, config);
    },
  };
}

/** Returns the schema of a list of at most `most` items, measured before its items are validated. */
export function boundedList<T extends v.GenericSchema>(item: T, most: number) {
  return measureFirst(v.pipe(v.array(item, "type"), v.maxLength(most, "many")));
}
