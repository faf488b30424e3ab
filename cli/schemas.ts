import { mkdirSync, writeFileSync } from "node:fs";
import { formatJsonSchemas } from "#handover";

mkdirSync("docs/schema", { recursive: true });
for (const [file, text] of Object.entries(formatJsonSchemas())) writeFileSync(file, text);
