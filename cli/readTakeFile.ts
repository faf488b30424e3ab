import { readFileSync } from "node:fs";
import { BOUNDS, countFrames, formatIssue, parseJson, parseTake, type Kit, type Take } from "#core";
import type { TakeFile } from "./takeFiles";

/** What stands in a file: a take, nothing for us, or what is wrong with it, a line each. */
export type ReadTake =
  { readonly take: Take } | { readonly isPassedOver: true } | { readonly lines: readonly string[] };

const isOtherDocument = (value: unknown) =>
  typeof value === "object" &&
  value !== null &&
  "format" in value &&
  typeof value.format === "string" &&
  /^moss-tap\/(?!take$)/.test(value.format);

/** What a take of another kit lacks here, as a line; undefined for one of this kit, or that names none. */
export function whatItLacks({ path }: TakeFile, take: Take, kit: Kit): string | undefined {
  if (take.kit === undefined || take.kit === kit.id) return undefined;
  const has = (id: string) => kit.controls.some(control => control.id === id);
  const strange = Object.keys(take.lanes)
    .filter(id => !has(id))
    .sort();
  const lacking =
    strange.length === 0
      ? "its controls are all here"
      : `${kit.id} has no ${strange.slice(0, 12).join(", ")}: those presses are not heard`;
  return `${path}: was recorded for ${take.kit}; ${lacking}`;
}

/** Reads a take from a file. `rateHz`: the rate it is to be run at, at which it must not be too long. */
export function readTakeFile({ path, isFound }: TakeFile, rateHz: number): ReadTake {
  try {
    const json = parseJson(readFileSync(path, "utf8"));
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
