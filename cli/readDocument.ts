import { formatIssue, parseJson, type Result } from "#core";
import { readText } from "./readText";

/** Parses a file; problems are returned as lines for standard error. */
export function readDocument<T>(
  file: string,
  parse: (input: unknown) => Result<T>,
): { value: T } | { lines: string[] } {
  let source: string;
  try {
    source = readText(file);
  } catch (error) {
    return { lines: [`${file}: cannot be read (${error instanceof Error ? error.message : String(error)})`] };
  }
  const json = parseJson(source);
  const parsed = json.ok ? parse(json.value) : json;
  if (parsed.ok) return { value: parsed.value };
  return { lines: parsed.issues.map(issue => `${file}: ${formatIssue(issue)}`) };
}
