import { deleteAt, formatFinding, type Issue, type Kit } from "#core";
import { closeStretch } from "../maps/pressLengths";

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

/** What would cure an issue at the press of a button; empty where only a designer can tell. */
export function curesOf(issue: Issue, kit: Kit): Cure[] {
  const [list, index] = issue.path;
  if (issue.code === "dead-stretch" || issue.code === "double-stretch") {
    const pattern = list === "patterns" && typeof index === "number" ? kit.patterns[index] : undefined;
    if (!pattern || !("control" in pattern)) return [];
    const { from, to, oneId, otherId, lowerId, upperId } = issue.facts;
    const patternIds = issue.code === "dead-stretch" ? [] : [String(oneId), String(otherId)];
    if (issue.code === "dead-stretch" && (lowerId === undefined || upperId === undefined)) return [];
    const stretch = { from: Number(from), to: Number(to ?? Infinity), patternIds };
    return closeStretch(kit, stretch, pattern.control);
  }
  if (issue.code === "unknown-id" && typeof issue.path.at(-1) === "number")
    return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  if (issue.code === "when-field") return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  return [];
}
