import { deleteAt, formatFinding, type Issue, type Kit } from "#core";

/** Formats an issue for display beside its rule, without the place. */
export function formatWarning(issue: Issue): string {
  const words = formatFinding(issue);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}

/** A change that fixes an issue of a rule. */
export interface Cure {
  readonly words: string;
  readonly edit: (kit: Kit) => Kit;
}

/** Returns the changes that fix an issue; empty if only a designer can decide, or a map offers it. */
export function curesOf(issue: Issue): Cure[] {
  if (issue.code === "unknown-id" && typeof issue.path.at(-1) === "number")
    return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  if (issue.code === "when-field") return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  return [];
}
