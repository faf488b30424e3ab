import { kitSchema } from "../kit/schema";
import { assistsSchema } from "../kit/parseAssists";
import { layoutSchema } from "../kit/layout";
import { checksSchema } from "../checks/checksSchema";
import { resultsSchema } from "../checks/results";
import { mappingSchema } from "../input/parseMapping";
import { takesSchema } from "../input/parseTakes";
import { takeSchema } from "../input/takeSchema";
import { traceSchema } from "../trace/traceSchema";

/** The documents a user can export, by the name of their schema file. */
export const DOCUMENT_SCHEMAS = {
  kit: kitSchema,
  take: takeSchema,
  takes: takesSchema,
  trace: traceSchema,
  layout: layoutSchema,
  checks: checksSchema,
  results: resultsSchema,
  assists: assistsSchema,
  mapping: mappingSchema,
} as const;
