import { BOUNDS, countFrames, formatIssue, parseJson, parseTake, type Result, type Take } from "#core";
import { reasonOf } from "./output";
import { readText } from "./readText";
import type { TakeFile } from "./takeFiles";

/**
 * The content of a file: a take, a file left out with its reason, or problems, a line each; `isNamed`: it was not found in a
 * folder, but given by name, so that nothing is judged without it.
 */
export type ReadTake =
  | { readonly take: Take }
  | { readonly leftOut: string }
  | { readonly lines: readonly string[]; readonly isNamed: boolean };

/** Returns whether JSON is no take: another document of ours, or none of ours. */
const isOtherDocument = (value: unknown) =>
  typeof value !== "object" || value === null || !("format" in value) || value.format !== "moss-tap/take";

function describeOther(value: unknown): string {
  const format = typeof value === "object" && value !== null && "format" in value ? value.format : undefined;
  return typeof format === "string" && format.startsWith("moss-tap/")
    ? `is ${format}`
    : "is no document of ours";
}

/** Returns the JSON of a file, or of a part of one that has been read. */
export function readJson({ path, content }: TakeFile): Result<unknown> {
  if (content && "json" in content) return { ok: true, value: content.json, warnings: [] };
  return parseJson(readText(path));
}

/** Reads a take from a file. `rateHz` is the rate to run it at; at that rate it must not be too long. */
export function readTakeFile(file: TakeFile, rateHz: number): ReadTake {
  const { isFound, place, content } = file;
  const path = place === undefined ? file.path : `${file.path}, takes[${place}]`;
  // One bad round in a file of takes leaves out that round only.
  const isNamed = !isFound && place === undefined;
  if (content && "leftOut" in content) return { leftOut: `${path}: ${content.leftOut}` };
  if (content && "faults" in content)
    return { lines: content.faults.map(fault => `${path}: ${fault}`), isNamed };
  try {
    const json = readJson(file);
    if (json.ok && isFound && isOtherDocument(json.value))
      return { leftOut: `${path}: ${describeOther(json.value)}` };
    const parsed = json.ok ? parseTake(json.value) : json;
    if (!parsed.ok) return { lines: parsed.issues.map(issue => `${path}: ${formatIssue(issue)}`), isNamed };
    const frames = countFrames(parsed.value, rateHz);
    if (frames > BOUNDS.frames)
      return {
        lines: [
          `${path}: ${frames} frames at ${rateHz} a second are more than ${BOUNDS.frames}: cut it shorter`,
        ],
        isNamed,
      };
    return { take: parsed.value };
  } catch (error) {
    return { lines: [`${path}: cannot be read (${reasonOf(error)})`], isNamed };
  }
}
