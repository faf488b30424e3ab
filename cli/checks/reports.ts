import { XMLBuilder } from "fast-xml-parser";
import {
  formatVerdict,
  type CheckResult,
  type Checks,
  type ResultChanges,
  type ResultsDocument,
} from "#core";

/** Returns the names of checks by id. */
const nameChecks = ({ checks }: Checks) => new Map(checks.map(({ id, name }) => [id, name || id]));

/** Escapes special characters of a TAP line. */
const escapeTap = (text: string) => text.replace(/[\\#]/g, "\\$&").replace(/\s+/g, " ");

/** Formats results as TAP version 14: a test point each, with a YAML block for a failure and for a vacuous one. */
export function formatTap(results: readonly CheckResult[], checks: Checks, changes?: ResultChanges): string {
  const names = nameChecks(checks);
  for (const [id, name] of names) names.set(id, escapeTap(name));
  const points = results.map((result, k) => {
    const name = `${names.get(result.check)}, take ${escapeTap(result.take)} at ${result.rate}`;
    if (result.ok && !result.vacuous) return `ok ${k + 1} - ${name}\n`;
    // JSON values are valid YAML.
    const facts = Object.entries({ message: formatVerdict(result), ...result })
      .map(([key, value]) => `  ${key}: ${JSON.stringify(value)}\n`)
      .join("");
    return `${result.ok ? "ok" : "not ok"} ${k + 1} - ${name}\n  ---\n${facts}  ...\n`;
  });
  const last = changes
    ? `# newly broken ${changes.newlyBroken}, newly held ${changes.newlyHeld}, still broken ${changes.stillBroken}, gone ${changes.gone}\n`
    : "";
  return `TAP version 14\n1..${results.length}\n${points.join("")}${last}`;
}

/** Formats results as a results document. */
export function formatResults(
  results: readonly CheckResult[],
  _checks?: Checks,
  changes?: ResultChanges,
): string {
  const document: ResultsDocument = {
    format: "moss-tap/results",
    version: 1,
    results,
    ...(changes ? { against: changes } : {}),
  };
  return `${JSON.stringify(document)}\n`;
}

/** Replaces characters that XML cannot represent. */
const escapeXml = (text: string) =>
  Buffer.from(text)
    .toString()
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "\ufffd");

/** Returns the properties of a test case or a suite; nothing if there are none. */
function listProperties(properties: Readonly<Record<string, string>>) {
  const property = Object.entries(properties).map(([name, value]) => ({ "@_name": name, "@_value": value }));
  return property.length > 0 ? { properties: { property } } : {};
}

/** Formats results as JUnit XML: a test case each, with its take and rate as the class. */
export function formatJunit(
  results: readonly CheckResult[],
  checks: Checks,
  changes?: ResultChanges,
): string {
  const names = nameChecks(checks);
  const failures = results.filter(result => !result.ok).length;
  const cases = results.map(result => ({
    "@_name": escapeXml(names.get(result.check)!),
    "@_classname": escapeXml(`${result.take} at ${result.rate}`),
    "@_time": "0",
    ...listProperties({
      ...(result.vacuous ? { vacuous: "true" } : {}),
      ...(result.was === undefined ? {} : { was: String(result.was) }),
    }),
    ...(result.ok
      ? {}
      : {
          failure: {
            "@_type": result.why ?? "",
            "@_message": formatVerdict(result),
            "#text": escapeXml(JSON.stringify(result)),
          },
        }),
  }));
  const sums = { "@_tests": results.length, "@_failures": failures, "@_errors": 0 };
  const builder = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true });
  const suite = {
    "@_name": escapeXml(checks.name || checks.id),
    ...sums,
    ...listProperties(
      Object.fromEntries(Object.entries(changes ?? {}).map(([name, n]) => [name, String(n)])),
    ),
    testcase: cases,
  };
  return builder.build({
    "?xml": { "@_version": "1.0", "@_encoding": "UTF-8" },
    testsuites: { ...sums, testsuite: suite },
  });
}

/** Every output format of results. */
export const REPORTS = {
  tap: formatTap,
  json: formatResults,
  junit: formatJunit,
} as const;
