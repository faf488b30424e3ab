import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { compile } from "./compile";
import { kitSchema, type Kit } from "./schema";

/** The kit format as this build knows it; older versions, once there are any, are brought forward here. */
export const KIT_FORMAT: DocumentFormat<Kit> = {
  format: "moss-tap/kit",
  version: 1,
  schema: kitSchema,
  forward: {},
};

/**
 * Reads an unknown value as a kit by its shape alone: a kit under work may have faults, such as a rule that names what is
 * gone, and is kept all the same.
 */
export function parseKitShape(input: unknown): Result<Kit> {
  return parseDocument(KIT_FORMAT, input);
}

/**
 * Reads an unknown value as a kit. Beyond its shape everything is checked that compiling checks: a kit that
 * is read can be run. Every fault is listed; warnings come with the kit.
 */
export function parseKit(input: unknown): Result<Kit> {
  const parsed = parseKitShape(input);
  if (!parsed.ok) return parsed;
  const compiled = compile(parsed.value);
  return compiled.ok ? { ...parsed, warnings: compiled.warnings } : compiled;
}
