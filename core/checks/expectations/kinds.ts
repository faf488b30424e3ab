import * as v from "valibot";
import * as answers from "./answers";
import * as counts from "./counts";
import type { ExpectationRecord, FieldsOf } from "./expectation";
import * as happens from "./happens";
import * as never from "./never";
import * as order from "./order";
import * as same from "./same";

/**
 * Every kind of expectation: one file and one line each. A module exports the schemas of its `fields`, whose
 * first one has the name of the kind, and its `record`.
 */
const KINDS = { happens, never, counts, order, answers, same } as const;

type Kinds = typeof KINDS;
export type ExpectationName = keyof Kinds;

/** The expectation of a check: exactly one of these. */
export type Expectation = { [Name in ExpectationName]: FieldsOf<Kinds[Name]["fields"]> }[ExpectationName];

/** The reasons why a check fails. `no-take`: it names a take that does not exist. */
export type WhyNot =
  | { [Name in ExpectationName]: keyof Kinds[Name]["record"]["failures"] }[ExpectationName]
  | "no-take";

export const EXPECTATION_NAMES = Object.keys(KINDS) as readonly ExpectationName[];

/** Returns the names of a kind's fields; the first is the kind itself. */
export function fieldsOf(name: ExpectationName): readonly string[] {
  return Object.keys(KINDS[name].fields);
}

/** The fields of all kinds, each optional: `parseChecks` verifies which may appear together. */
export const EXPECTATION_FIELDS = Object.fromEntries(
  EXPECTATION_NAMES.flatMap(name =>
    Object.entries(KINDS[name].fields as Readonly<Record<string, v.GenericSchema>>).map(([field, schema]) => [
      field,
      schema.type === "exact_optional" ? schema : v.exactOptional(schema),
    ]),
  ),
) as Readonly<Record<string, v.ExactOptionalSchema<v.GenericSchema, undefined>>>;

/** Returns the name of a check's expectation. */
export function expectationOf(check: object): ExpectationName {
  return EXPECTATION_NAMES.find(name => name in check)!;
}

/** Returns the record of a kind. The caller must pass an expectation of that same kind. */
export function expectationRecord(name: ExpectationName): ExpectationRecord<Expectation, string> {
  return KINDS[name].record as unknown as ExpectationRecord<Expectation, string>;
}

/** Returns whether events that make a check fail are unwanted ones. */
export function namesUnwanted(check: object): boolean {
  return expectationRecord(expectationOf(check)).namesUnwanted ?? false;
}

/** The words of every reason to fail, of all kinds. */
export const FAILURE_SENTENCES = new Map(
  EXPECTATION_NAMES.flatMap(name => Object.entries(expectationRecord(name).failures)),
);

// A kind whose fields do not begin with its own name, or that lacks anything, does not compile here.
KINDS satisfies {
  [Name in ExpectationName]: {
    readonly fields: Readonly<Record<Name, v.GenericSchema>>;
    readonly record: ExpectationRecord<
      FieldsOf<Kinds[Name]["fields"]>,
      keyof Kinds[Name]["record"]["failures"] & string
    >;
  };
};
