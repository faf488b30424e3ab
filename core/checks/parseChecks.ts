import { fault, type Issue, type PathStep, type Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { checksSchema, type Check, type Checks } from "./checksSchema";
import { EXPECTATION_NAMES, expectationRecord, fieldsOf } from "./expectations/kinds";

/** The checks format and its newest version. */
const CHECKS_FORMAT: DocumentFormat<Checks> = {
  format: "moss-tap/checks",
  version: 1,
  schema: checksSchema as unknown as DocumentFormat<Checks>["schema"],
  forward: {},
};

/** Every field that belongs to some expectations and not to all. */
const OWN_FIELDS = new Set<string>(EXPECTATION_NAMES.flatMap(name => fieldsOf(name).slice(1)));

/** Returns issues for fields of a check that do not go together. */
function checkFields(check: Check, path: readonly PathStep[]): Issue[] {
  const names = EXPECTATION_NAMES.filter(name => name in check);
  const [own, ...more] = names;
  if (!own) return [fault("check-none", path, { wanted: EXPECTATION_NAMES.join(", ") })];
  const issues = more.map(name => fault("check-two", [...path, name], { other: own }));
  if (issues.length > 0) return issues;
  const { requires = {}, verify } = expectationRecord(own);
  for (const key of Object.keys(check))
    if (OWN_FIELDS.has(key) && !fieldsOf(own).includes(key))
      issues.push(fault("check-field", [...path, key], { field: key, with: own }));
  for (const [key, hint] of Object.entries(requires))
    if (!(key in check)) issues.push(fault("missing", [...path, key], { hint }));
  return [...issues, ...(verify?.(check, path) ?? [])];
}

/**
 * Parses an unknown value as a list of checks: its shape, exactly one expectation each with its fields,
 * unique ids. `compileCheck` verifies that a kit has the ids a check names.
 */
export function parseChecks(input: unknown): Result<Checks> {
  const parsed = parseDocument(CHECKS_FORMAT, input);
  if (!parsed.ok) return parsed;
  const seen = new Set<string>();
  const issues = parsed.value.checks.flatMap((check, i) => {
    const found = checkFields(check, ["checks", i]);
    if (seen.has(check.id))
      found.push(fault("duplicate-id", ["checks", i, "id"], { id: check.id, what: "check" }));
    seen.add(check.id);
    return found;
  });
  return issues.length === 0 ? parsed : { ok: false, issues };
}

/** Parses one check; paths are relative to it. */
export function parseCheck(input: unknown): Result<Check> {
  const list = { format: "moss-tap/checks", version: 1, id: "one", name: "", checks: [input] };
  const parsed = parseChecks(list);
  if (parsed.ok) return { ok: true, value: parsed.value.checks[0]!, warnings: [] };
  return { ok: false, issues: parsed.issues.map(issue => ({ ...issue, path: issue.path.slice(2) })) };
}

/** Returns a list of checks as the document a file holds. */
export function checksDocument(
  id: string,
  name: string,
  kitId: string | undefined,
  checks: readonly Check[],
): Checks {
  const kit = kitId === undefined ? {} : { kit: kitId };
  return { format: "moss-tap/checks", version: 1, id, name, ...kit, checks };
}
