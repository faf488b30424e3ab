import * as v from "valibot";
import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import type { DeepReadonly } from "../formats/readonly";
import { idRecord } from "../formats/idRecord";
import { padMapSchema } from "./padMap";
import { id, list, text } from "./parts";
import { bindingSchema } from "./schema";

/** The greatest number of pads whose maps a layout carries. */
export const LAYOUT_PADS = 20;

/** A layout document: which keys and buttons play which controls, separate from any rules. */
export const layoutSchema = v.strictObject({
  format: v.literal("moss-tap/layout"),
  version: v.literal(1),
  id,
  name: text,
  bindings: idRecord(list(bindingSchema)),
  /** The maps of pads without the standard layout that its bindings were made with. */
  pads: v.exactOptional(list(padMapSchema, LAYOUT_PADS)),
});

export type Layout = DeepReadonly<v.InferOutput<typeof layoutSchema>>;

const LAYOUT_FORMAT: DocumentFormat<Layout> = {
  format: "moss-tap/layout",
  version: 1,
  schema: layoutSchema,
  forward: {},
};

/**
 * Parses an unknown value as a layout. The controls it names need not exist, since a layout can serve several
 * kits.
 */
export function parseLayout(input: unknown): Result<Layout> {
  return parseDocument(LAYOUT_FORMAT, input);
}
