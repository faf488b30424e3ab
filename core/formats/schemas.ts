import { kitSchema } from "../kit/schema";
import { layoutSchema } from "../kit/layout";
import { checksSchema } from "../checks/checksSchema";
import { takeSchema } from "../input/takeSchema";
import { traceSchema } from "../trace/traceSchema";

/** The documents a user can hold in hand, by the name of their schema's file. */
export const DOCUMENT_SCHEMAS = {
  kit: kitSchema,
  take: takeSchema,
  trace: traceSchema,
  layout: layoutSchema,
  checks: checksSchema,
} as const;
