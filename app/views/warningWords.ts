import { deleteAt, formatFinding, type Issue, type Kit } from "#core";

/** A finding beside the rule it is about: the place is plain to see, so it is not told. */
export function sayFinding(issue: Issue): string {
  const words = formatFinding(issue);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}

/** A change that cures what is said about a rule. */
export interface Cure {
  readonly words: string;
  readonly edit: (kit: Kit) => Kit;
}

/** What would cure an issue at the press of a button; empty where only a designer can tell, or where a map offers it. */
export function curesOf(issue: Issue): Cure[] {
  if (issue.code === "unknown-id" && typeof issue.path.at(-1) === "number")
    return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  if (issue.code === "when-field") return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  return [];
}
