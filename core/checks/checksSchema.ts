import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { duration, flag, id, list, rate, some, text } from "../kit/parts";
import { EXPECTATION_FIELDS, type Expectation } from "./expectations/kinds";

/** The fields every check has. */
const checkFields = {
  id,
  name: text,
  on: v.union([v.literal("*"), some(id)]),
  from: v.exactOptional(duration),
  to: v.exactOptional(duration),
  rates: v.exactOptional(some(rate)),
  off: v.exactOptional(flag),
};

/** A check as stored in a file. `parseChecks` verifies which fields may appear together. */
export const checkSchema = v.strictObject({ ...checkFields, ...EXPECTATION_FIELDS });

/** The checks document. Source: check rules, "File". */
export const checksSchema = v.strictObject({
  format: v.literal("moss-tap/checks"),
  version: v.literal(1),
  id,
  name: text,
  kit: v.exactOptional(text),
  checks: list(checkSchema),
});

type CheckBase = DeepReadonly<v.InferOutput<v.StrictObjectSchema<typeof checkFields, undefined>>>;

/** A rule about what must or must not be recognised in takes. */
export type Check = CheckBase & Expectation;

/** A list of checks as stored in a file. */
export interface Checks {
  readonly format: "moss-tap/checks";
  readonly version: 1;
  readonly id: string;
  readonly name: string;
  readonly kit?: string;
  readonly checks: readonly Check[];
}
