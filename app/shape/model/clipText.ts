import { countWords, formatIssue, parseKitShape, type Kit } from "#core";
import type { Pasted } from "../../edits/ruleClips";

/** The number of faults of a clipboard's text that are listed. */
const MAX_REASONS = 5;
const NO_RULES = "The clipboard holds no rules: copy some first, here or in another kit.";

/** Returns copied rules as text: a kit as JSON. */
export const formatClip = (clip: Kit): string => `${JSON.stringify(clip, null, 2)}\n`;

/** The rules in a text, or why there are none: one line, and the faults of a kit that cannot be read. */
export type ReadClip =
  | { readonly clip: Kit }
  | { readonly trouble: string; readonly details: readonly string[] };

/** Reads rules from a text. A kit without rules, or any other text, is no clip. */
export function readClip(text: string): ReadClip {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { trouble: NO_RULES, details: [] };
  }
  if (typeof json !== "object" || json === null || !("format" in json) || json.format !== "moss-tap/kit")
    return { trouble: NO_RULES, details: [] };
  const read = parseKitShape(json);
  if (!read.ok)
    return {
      trouble: "The rules on the clipboard cannot be read.",
      details: read.issues.slice(0, MAX_REASONS).map(formatIssue),
    };
  const { patterns, moves = [], gates = [], prompts = [] } = read.value;
  return patterns.length + moves.length + gates.length + prompts.length === 0
    ? { trouble: NO_RULES, details: [] }
    : { clip: read.value };
}

/** Describes pasted rules: a title, and what else changed. */
export function describePasted({ added, controls, leftModes }: Pasted): {
  readonly title: string;
  readonly details: readonly string[];
} {
  if (added.length === 0) return { title: "Nothing to paste: the kit has these rules already.", details: [] };
  const names = added.map(({ name }) => name).join(", ");
  return {
    title: `${countWords(added.length, "rule")} pasted: ${names}.`,
    details: [
      ...(controls.length > 0 ? [`New controls, to be bound in Wire: ${controls.join(", ")}.`] : []),
      ...(leftModes.length > 0
        ? [`No mode is called ${leftModes.join(", ")} here: rules limited to it hold in all modes.`]
        : []),
    ],
  };
}
