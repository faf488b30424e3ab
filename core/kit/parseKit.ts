import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { compile } from "./compile";
import { kitSchema, type Kit } from "./schema";

/** The kit format and its newest version; older versions are upgraded here once there are any. */
export const KIT_FORMAT: DocumentFormat<Kit> = {
  format: "moss-tap/kit",
  version: 1,
  schema: kitSchema,
  forward: {},
};

/**
 * Parses an unknown value as a kit by its shape alone. A kit being edited may have faults, such as a rule
 * that names something deleted, and is stored anyway.
 */
export function parseKitShape(input: unknown): Result<Kit> {
  return parseDocument(KIT_FORMAT, input);
}

/**
 * Parses an unknown value as a kit, with everything the compiler checks: a parsed kit can be run. Returns
 * every fault; warnings come with the kit.
 */
export function parseKit(input: unknown): Result<Kit> {
  const parsed = parseKitShape(input);
  if (!parsed.ok) return parsed;
  const compiled = compile(parsed.value);
  return compiled.ok ? { ...parsed, warnings: compiled.warnings } : compiled;
}
