import { readFileSync } from "node:fs";
import {
  BOUNDS,
  countFrames,
  formatIssue,
  parseJson,
  parseTake,
  parseTakes,
  type Result,
  type Take,
} from "#core";
import { reasonOf } from "./output";
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

/** Returns the JSON of a file, or of one of several takes in it. */
export function readPlace(path: string, place: number | undefined): Result<unknown> {
  const json = parseJson(readFileSync(path, "utf8"));
  if (!json.ok || place === undefined) return json;
  const together = parseTakes(json.value);
  return together.ok ? { ok: true, value: together.value.takes[place], warnings: [] } : together;
}

/** Reads a take from a file. `rateHz` is the rate to run it at; at that rate it must not be too long. */
export function readTakeFile(
  { path: file, isFound, place, take, fault }: TakeFile,
  rateHz: number,
): ReadTake {
  const path = place === undefined ? file : `${file}, takes[${place}]`;
  // One bad round in a file of takes leaves out that round only.
  const isNamed = !isFound && place === undefined;
  if (fault !== undefined) return { lines: [fault], isNamed };
  try {
    const json = take ? undefined : readPlace(file, place);
    if (json?.ok && isFound && isOtherDocument(json.value))
      return { leftOut: `${path}: ${describeOther(json.value)}` };
    const parsed = !json ? { ok: true as const, value: take! } : json.ok ? parseTake(json.value) : json;
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
