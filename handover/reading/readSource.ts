import {
  formatIssue,
  parseAssists,
  parseChecks,
  parseJson,
  parseLayout,
  parseMapping,
  parseTake,
  parseTakes,
  type Assists,
  type Checks,
  type Issue,
  type Kit,
  type Layout,
  type Mapping,
  type Result,
  type Take,
  ownValue,
} from "#core";
import { parseRules } from "#stage";

/**
 * The result of reading a file: a kit, a variant, a take, a layout, checks, assists or a mapping; a refusal with its
 * reasons; or a file to skip, which is not an error.
 */
export type ReadFile =
  | { readonly kind: "kit"; readonly name: string; readonly kit: Kit }
  /** An earlier version of the rules: a kit that bears the variant's name. Only packs hold these. */
  | { readonly kind: "variant"; readonly name: string; readonly kit: Kit }
  | { readonly kind: "take"; readonly name: string; readonly take: Take }
  | { readonly kind: "layout"; readonly name: string; readonly layout: Layout }
  | { readonly kind: "checks"; readonly name: string; readonly checks: Checks }
  | { readonly kind: "assists"; readonly name: string; readonly assists: Assists }
  | { readonly kind: "mapping"; readonly name: string; readonly mapping: Mapping }
  | { readonly kind: "passed"; readonly name: string; readonly why: string }
  | { readonly kind: "refused"; readonly name: string; readonly reasons: readonly string[] };

/** Returns a refusal with a sentence per issue. */
export function refuseFor(name: string, issues: readonly Issue[]): ReadFile {
  return { kind: "refused", name, reasons: issues.map(formatIssue) };
}

type Reader = (name: string, json: unknown) => readonly ReadFile[];

function reader<T>(parse: (json: unknown) => Result<T>, wrap: (name: string, value: T) => ReadFile): Reader {
  return (name, json) => {
    const read = parse(json);
    return [read.ok ? wrap(name, read.value) : refuseFor(name, read.issues)];
  };
}

const readTake = reader(parseTake, (name, take) => ({ kind: "take", name, take }));

/** Reads several takes separately: a broken one is refused with its place, the others are read. */
const readTakes: Reader = (name, json) => {
  const read = parseTakes(json);
  if (!read.ok) return [refuseFor(name, read.issues)];
  return read.value.takes.flatMap((take, n) => readTake(`${name}, takes[${n}]`, take));
};

const passed =
  (why: string): Reader =>
  name => [{ kind: "passed", name, why }];

/** The reader of each format; an unknown format is read as a kit, whose issues name it. */
const READERS: Readonly<Record<string, Reader>> = {
  "moss-tap/kit": reader(parseRules, (name, { kit }) => ({ kind: "kit", name, kit })),
  "moss-tap/take": readTake,
  "moss-tap/takes": readTakes,
  "moss-tap/checks": reader(parseChecks, (name, checks) => ({ kind: "checks", name, checks })),
  "moss-tap/assists": reader(parseAssists, (name, assists) => ({ kind: "assists", name, assists })),
  "moss-tap/layout": reader(parseLayout, (name, layout) => ({ kind: "layout", name, layout })),
  "moss-tap/trace": passed("a trace: it is made again from its take"),
  "moss-tap/results": passed("results of checks: they are found again"),
  "moss-tap/manifest": passed("a list of what a pack holds"),
  "moss-tap/mapping": reader(parseMapping, (name, mapping) => ({ kind: "mapping", name, mapping })),
};

/**
 * Reads the text of a document; its format field selects the reader. A document of several takes returns
 * several files.
 */
export function readSource(name: string, source: string): readonly ReadFile[] {
  const json = parseJson(source);
  if (!json.ok) return [refuseFor(name, json.issues)];
  const { format } = (json.value ?? {}) as { readonly format?: unknown };
  const read =
    (typeof format === "string" ? ownValue(READERS, format) : undefined) ?? READERS["moss-tap/kit"]!;
  return read(name, json.value);
}
