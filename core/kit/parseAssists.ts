import * as v from "valibot";
import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import type { DeepReadonly } from "../formats/readonly";
import { assistSchema, type Assist } from "./assistSchema";
import { id, list, text } from "./parts";

/** Assists separate from any kit, for copying from one kit to another. */
export const assistsSchema = v.strictObject({
  format: v.literal("moss-tap/assists"),
  version: v.literal(1),
  id,
  name: text,
  kit: v.exactOptional(text),
  assists: list(assistSchema),
});

export type Assists = DeepReadonly<v.InferOutput<typeof assistsSchema>>;

const ASSISTS_FORMAT: DocumentFormat<Assists> = {
  format: "moss-tap/assists",
  version: 1,
  schema: assistsSchema,
  forward: {},
};

/**
 * Parses an unknown value as assists. The layouts they name need not exist, since assists can serve several
 * kits.
 */
export function parseAssists(input: unknown): Result<Assists> {
  return parseDocument(ASSISTS_FORMAT, input);
}

/** Returns assists as the document a file holds. */
export function assistsDocument(
  named: { readonly id: string; readonly name: string; readonly kit?: string },
  assists: readonly Assist[],
): Assists {
  return { format: "moss-tap/assists", version: 1, ...named, assists };
}
