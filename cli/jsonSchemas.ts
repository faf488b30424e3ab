import { toJsonSchema } from "@valibot/to-json-schema";
import { DOCUMENT_SCHEMAS } from "#core";

const TITLES = {
  kit: "Moss Tap kit: all timing rules of one game or character",
  take: "Moss Tap take: recorded input, one lane a control",
  trace: "Moss Tap trace: what the core made of a take",
};

/** The JSON Schemas (draft 7) of kit, take and trace, by file, generated from the schemas the core reads with. */
export function formatJsonSchemas(): Record<string, string> {
  return Object.fromEntries(
    (["kit", "take", "trace"] as const).map(name => {
      const schema = { title: TITLES[name], ...toJsonSchema(DOCUMENT_SCHEMAS[name], { errorMode: "throw" }) };
      return [`docs/schema/${name}.schema.json`, JSON.stringify(schema, null, 2) + "\n"];
    }),
  );
}
