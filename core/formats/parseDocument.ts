import { ownValue } from "./ownValue";
import * as v from "valibot";
import { BOUNDS } from "./bounds";
import { fault, type Issue, type IssueCode, type PathStep, type Result } from "./issue";
import { isRecord, likeliest, type AnySchema } from "./walkSchema";

const CODES_BY_MESSAGE = new Set<string>([
  "length",
  "empty",
  "whole",
  "range",
  "text",
  "choice",
  "code",
  "no-variant",
  "rate",
  "frames",
  "type",
  "id",
  "long-text",
  "many",
  "far",
  "past-takes",
  "two",
]);

/** Formats a value in a few characters; reads only as much of it as is shown. */
function show(value: unknown): string {
  if (value === undefined) return "nothing";
  if (typeof value === "string") return value.length > 57 ? `'${value.slice(0, 55)}…'` : `'${value}'`;
  if (typeof value !== "object" || value === null) return String(value);
  const items = Array.isArray(value) ? value : Object.values(value);
  const isPlain =
    items.length < 12 && items.every(item => typeof item !== "object" && String(item).length < 60);
  const written = isPlain ? JSON.stringify(value) : "";
  if (written !== "" && written.length <= 60) return written;
  if (Array.isArray(value)) return `a list of ${items.length}`;
  return `{${Object.keys(value).slice(0, 3).join(", ").slice(0, 50)}…}`;
}

/** Returns whether lists and objects nest deeper than `depth`. Recurses no deeper than that itself. */
function isDeeperThan(input: unknown, depth: number): boolean {
  if (typeof input !== "object" || input === null) return false;
  if (depth === 0) return true;
  if (Array.isArray(input)) return input.some(item => isDeeperThan(item, depth - 1));
  for (const key in input) if (isDeeperThan((input as Record<string, unknown>)[key], depth - 1)) return true;
  return false;
}

function fieldHint(entries: Readonly<Record<string, AnySchema>>): string {
  return `take it out, or use one of ${Object.keys(entries).join(", ")}`;
}

/** Adds a fault for every field the schema does not know, at every depth (Valibot stops at the first). */
function listUnknownFields(
  schema: AnySchema,
  value: unknown,
  path: readonly PathStep[],
  issues: Issue[],
): void {
  if (schema.wrapped) return listUnknownFields(schema.wrapped, value, path, issues);
  if (schema.options && schema.type !== "picklist") {
    const option = likeliest(schema.options, value);
    if (option) listUnknownFields(option, value, path, issues);
    return;
  }
  if (Array.isArray(value)) {
    if (schema.item?.entries || schema.item?.options) {
      value.forEach((item, i) => listUnknownFields(schema.item!, item, [...path, i], issues));
    }
    return;
  }
  if (!isRecord(value) || !schema.entries) return;
  for (const [key, item] of Object.entries(value)) {
    if (issues.length >= BOUNDS.issues) return;
    const entry = ownValue(schema.entries, key);
    if (entry) listUnknownFields(entry, item, [...path, key], issues);
    else
      issues.push(
        fault("unknown-field", [...path, key], { found: show(key), hint: fieldHint(schema.entries) }),
      );
  }
}

const RANGES: Readonly<Record<string, Issue["facts"]>> = {
  speed: { low: 0, high: "400 %" },
  count: { low: 1, high: 999 },
  max: { low: 1, high: 999 },
  default: { low: 0, high: 1 },
};

function wantedForms(schema: AnySchema): string {
  const forms = schema.options ?? [];
  const kinds = forms.map(form => form.entries?.kind?.literal).filter(kind => kind !== undefined);
  if (kinds.length > 0) return `kind ${kinds.join(", ")}`;
  return forms
    .map(
      form =>
        `{${Object.keys(form.entries ?? {})
          .slice(0, 2)
          .join(", ")}}`,
    )
    .join(" or ");
}

function sizeOf(value: unknown): number {
  if (isRecord(value)) return Object.keys(value).length;
  return typeof value === "string" || Array.isArray(value) ? value.length : 0;
}

function toIssues(found: v.BaseIssue<unknown>, schemaAt: AnySchema, value: unknown): Issue[] {
  const path = (found.path ?? []).map(step => step.key as PathStep);
  const shown = { found: show(found.input) };
  if (found.type === "strict_object" && found.expected === "never") return [];
  if (found.received === "undefined" && path.length > 0) {
    return [fault("missing", path, { hint: `write a value for ${String(path.at(-1))}` })];
  }
  if (found.type === "union" || found.type === "variant") {
    const union = schemaAlong(schemaAt, path, value);
    const option = union?.options && likeliest(union.options, found.input);
    if (option && found.type === "union") {
      const inner = v.safeParse(option as unknown as v.GenericSchema, found.input);
      const deeper = inner.issues?.flatMap(issue => toIssues(issue, option, found.input)) ?? [];
      return deeper.map(issue => ({ ...issue, path: [...path, ...issue.path] }));
    }
    const kindAt = path.at(-1) === "kind" ? path.slice(0, -1) : path;
    const forms = schemaAlong(schemaAt, kindAt, value) ?? union;
    return [
      fault("no-variant", path, { ...shown, wanted: forms ? wantedForms(forms) : String(found.expected) }),
    ];
  }
  const code: IssueCode = CODES_BY_MESSAGE.has(found.message) ? (found.message as IssueCode) : "type";
  const wanted = String(found.expected ?? "another kind of value").replaceAll("Object", "an object {…}");
  const facts: Record<string, string | number> = { ...shown, wanted };
  if (code === "length" && typeof found.input === "string" && /^0+(\.0+)?(f|ms)$/.test(found.input))
    return [fault("length-zero", path, facts)];
  if (code === "range")
    Object.assign(
      facts,
      ownValue(RANGES, String(path.at(-1))) ?? ownValue(RANGES, String(path[0])) ?? RANGES.default,
    );
  if (code === "long-text" || code === "many")
    Object.assign(facts, { size: sizeOf(found.input), limit: Number(found.requirement) });
  if (code === "whole") facts.atLeast = typeof found.requirement === "number" ? found.requirement : 1;
  if (code === "choice") facts.wanted = wanted.replace(/[()]/g, "").replaceAll(" | ", ", ");
  return [fault(code, path, facts)];
}

/** Returns the schema at a path, choosing union forms by the value found there. */
function schemaAlong(root: AnySchema, path: readonly PathStep[], value: unknown): AnySchema | undefined {
  let schema: AnySchema | undefined = root;
  let here: unknown = value;
  for (const step of path) {
    while (schema?.wrapped) schema = schema.wrapped;
    if (schema?.options && schema.type !== "picklist") schema = likeliest(schema.options, here);
    schema =
      typeof step === "number"
        ? (schema?.item ?? schema?.items?.[step])
        : (ownValue(schema?.entries, step) ?? schema?.value);
    here = isRecord(here) || Array.isArray(here) ? (here as Record<PathStep, unknown>)[step] : undefined;
  }
  while (schema?.wrapped) schema = schema.wrapped;
  return schema;
}

/** A document format: its name, its newest version, and how older versions are upgraded. */
export interface DocumentFormat<T> {
  readonly format: string;
  readonly version: number;
  readonly schema: v.GenericSchema<unknown, T>;
  /** Fields that hold many numbers; their own schema checks their depth. */
  readonly bulk?: readonly string[];
  /** `forward[n]` upgrades a document of version n to version n + 1. */
  readonly forward: Readonly<Record<number, (document: Record<string, unknown>) => Record<string, unknown>>>;
}

/**
 * Parses an unknown value as a document. Never throws on user input: returns the typed value or every issue
 * found, at most BOUNDS.issues of each sort, with unknown fields listed one by one. An older version is upgraded
 * first; a newer one is refused
 * without a further look.
 */
export function parseDocument<T>(known: DocumentFormat<T>, input: unknown): Result<T> {
  if (!isRecord(input) || input.format !== known.format) {
    const found = isRecord(input) ? `format ${show(input.format)}` : show(input);
    return {
      ok: false,
      issues: [fault("wrong-format", isRecord(input) ? ["format"] : [], { found, wanted: known.format })],
    };
  }
  const version = input.version;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1) {
    return { ok: false, issues: [fault("unknown-version", ["version"], { found: show(version) })] };
  }
  if (version > known.version) {
    return { ok: false, issues: [fault("too-new", ["version"], { found: version, known: known.version })] };
  }
  const looked = Object.entries(input).filter(([key]) => !known.bulk?.includes(key));
  if (looked.some(([, item]) => isDeeperThan(item, BOUNDS.depth)))
    return { ok: false, issues: [fault("deep", [], { limit: BOUNDS.depth })] };
  let document: Record<string, unknown> = input;
  for (let from = version; from < known.version; from++) document = known.forward[from]!(document);
  return parseShape(known.schema, document);
}

/**
 * Parses an unknown value by a schema whose leaves are those of documents (kit/parts.ts). Never throws on user input:
 * returns the typed value or every issue found, at most BOUNDS.issues of each sort, with unknown fields listed one by
 * one. The caller has measured the depth of the value.
 */
export function parseShape<T>(schema: v.GenericSchema<unknown, T>, input: unknown): Result<T> {
  const walked = schema as unknown as AnySchema;
  const issues: Issue[] = [];
  const parsed = v.safeParse(schema, input);
  // The items of a list that is too long are not looked at.
  if (!parsed.issues?.some(({ message }) => message === "many")) listUnknownFields(walked, input, [], issues);
  if (!parsed.success)
    for (const found of parsed.issues.slice(0, BOUNDS.issues)) issues.push(...toIssues(found, walked, input));
  if (parsed.success && issues.length === 0) return { ok: true, value: parsed.output, warnings: [] };
  return { ok: false, issues };
}
