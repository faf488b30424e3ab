import * as v from "valibot";
import { boundedList } from "../formats/boundedList";
import { BOUNDS } from "../formats/bounds";
import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import type { DeepReadonly } from "../formats/readonly";
import { id, text } from "../kit/parts";
import { takeSchema } from "./takeSchema";

function takesOf<T extends v.GenericSchema>(take: T) {
  return v.strictObject({
    format: v.literal("moss-tap/takes"),
    version: v.literal(1),
    id,
    name: text,
    kit: v.exactOptional(text),
    takes: boundedList(take, BOUNDS.items),
  });
}

/** Several takes in one document, as a playable page exports them. */
export const takesSchema = takesOf(takeSchema);

export type Takes = DeepReadonly<v.InferOutput<typeof takesSchema>>;

/** Several takes of one document, not yet parsed one by one. */
export interface UnreadTakes extends Omit<Takes, "takes"> {
  readonly takes: readonly unknown[];
}

const TAKES_FORMAT: DocumentFormat<UnreadTakes> = {
  format: "moss-tap/takes",
  version: 1,
  schema: takesOf(v.unknown()) as unknown as DocumentFormat<UnreadTakes>["schema"],
  bulk: ["takes"],
  forward: {},
};

/**
 * Parses an unknown value as several takes. Parse each take separately with `parseTake`, so that a broken one
 * does not affect the others.
 */
export function parseTakes(input: unknown): Result<UnreadTakes> {
  return parseDocument(TAKES_FORMAT, input);
}

/** Returns takes as one document. */
export function takesDocument(
  named: { readonly id: string; readonly name: string; readonly kit?: string },
  takes: Takes["takes"],
): Takes {
  return { format: "moss-tap/takes", version: 1, ...named, takes };
}
