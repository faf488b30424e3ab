import * as v from "valibot";
import { idRecord } from "../formats/idRecord";
import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import type { DeepReadonly } from "../formats/readonly";
import { id, rate, text } from "../kit/parts";

/** How a recording from elsewhere is read as a take: which of its columns or signals play which controls, and what its times mean. */
export const mappingSchema = v.strictObject({
  format: v.literal("moss-tap/mapping"),
  version: v.literal(1),
  /** `changes`: a row a change; `frames`: a row a frame, a column a control; `dump`: a value change dump. */
  sort: v.picklist(["changes", "frames", "dump"], "choice"),
  /** The rate of the take that is made, and of times written in frames. */
  rate,
  /** The unit of times in a table; a dump has its own. */
  unit: v.exactOptional(v.picklist(["frames", "s", "ms", "us", "ns"], "choice")),
  /** The columns of a table by their heads. `control` and `value` only for a row a change. */
  time: v.exactOptional(text),
  control: v.exactOptional(text),
  value: v.exactOptional(text),
  /** What plays which control: names in the control column, heads of columns, or paths of signals, to ids of controls. */
  controls: idRecord(id),
});

export type Mapping = DeepReadonly<v.InferOutput<typeof mappingSchema>>;

const MAPPING_FORMAT: DocumentFormat<Mapping> = {
  format: "moss-tap/mapping",
  version: 1,
  schema: mappingSchema as unknown as DocumentFormat<Mapping>["schema"],
  forward: {},
};

/** Reads an unknown value as a mapping. Controls it names need not exist: it can serve several kits. */
export function parseMapping(input: unknown): Result<Mapping> {
  return parseDocument(MAPPING_FORMAT, input);
}
