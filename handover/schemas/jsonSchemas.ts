import { toJsonSchema } from "@valibot/to-json-schema";
import { DOCUMENT_SCHEMAS } from "#core";

const TITLES = {
  kit: "Moss Tap kit: all timing rules of one game or character",
  take: "Moss Tap take: recorded input, one lane a control",
  takes: "Moss Tap takes: several takes in one document",
  trace: "Moss Tap trace: what the core made of a take",
  checks: "Moss Tap checks: what must and must not be made of takes",
  results: "Moss Tap results: what each check found in each take",
  assists: "Moss Tap assists: versions of a kit for players who need more time or less force",
  mapping: "Moss Tap mapping: how a recording from elsewhere is read as a take",
  layout: "Moss Tap layout: which keys and buttons play which controls",
};

/**
 * Returns the JSON Schemas (draft 7) of every document, by file name, generated from the schemas the core
 * parses with.
 */
export function formatJsonSchemas(): Record<string, string> {
  return Object.fromEntries(
    (Object.keys(TITLES) as (keyof typeof TITLES)[]).map(name => {
      const schema = { title: TITLES[name], ...toJsonSchema(DOCUMENT_SCHEMAS[name], { errorMode: "throw" }) };
      return [`docs/schema/${name}.schema.json`, JSON.stringify(schema, null, 2) + "\n"];
    }),
  );
}
