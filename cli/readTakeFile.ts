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
import type { TakeFile } from "./takeFiles";

/** The content of a file: a take, nothing relevant, or problems, a line each. */
export type ReadTake =
  { readonly take: Take } | { readonly isPassedOver: true } | { readonly lines: readonly string[] };

const isOtherDocument = (value: unknown) =>
  typeof value === "object" &&
  value !== null &&
  "format" in value &&
  typeof value.format === "string" &&
  /^moss-tap\/(?!take$)/.test(value.format);

/** Returns the JSON of a file, or of one of several takes in it. */
export function readPlace(path: string, place: number | undefined): Result<unknown> {
  const json = parseJson(readFileSync(path, "utf8"));
  if (!json.ok || place === undefined) return json;
  const together = parseTakes(json.value);
  return together.ok ? { ok: true, value: together.value.takes[place], warnings: [] } : together;
}

/** Reads a take from a file. `rateHz` is the rate to run it at; at that rate it must not be too long. */
export function readTakeFile({ path: file, isFound, place }: TakeFile, rateHz: number): ReadTake {
  const path = place === undefined ? file : `${file}, takes[${place}]`;
  try {
    const json = readPlace(file, place);
    if (json.ok && isFound && isOtherDocument(json.value)) return { isPassedOver: true };
    const parsed = json.ok ? parseTake(json.value) : json;
    if (!parsed.ok) return { lines: parsed.issues.map(issue => `${path}: ${formatIssue(issue)}`) };
    const frames = countFrames(parsed.value, rateHz);
    if (frames > BOUNDS.frames)
      return {
        lines: [
          `${path}: ${frames} frames at ${rateHz} a second are more than ${BOUNDS.frames}: cut it shorter`,
        ],
      };
    return { take: parsed.value };
  } catch (error) {
    return { lines: [`${path}: cannot be read (${error instanceof Error ? error.message : String(error)})`] };
  }
}
