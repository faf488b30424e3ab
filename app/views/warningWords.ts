import { deleteAt, formatIssue, type Issue, type Kit } from "#core";
import { closeStretch } from "../maps/pressLengths";

/** A warning beside the rule it is about: without its path, and with names in place of ids. */
export function sayWarning(issue: Issue, kit: Kit): string {
  const sentence = formatIssue(issue);
  const plain = sentence.slice(sentence.indexOf(": ") + 2);
  const named = [...kit.patterns, ...(kit.moves ?? []), ...(kit.gates ?? [])];
  const readable = named.reduce(
    (text, item) =>
      text.replaceAll(
        new RegExp(`(?<![\\w-])"?${item.id.replace(/[^\w-]/g, "\\$&")}"?(?![\\w-])`, "g"),
        item.name,
      ),
    plain,
  );
  return `${readable.charAt(0).toUpperCase()}${readable.slice(1)}.`;
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
    const { from, to, lower, upper, one, other } = issue.facts;
    const patternIds = issue.code === "dead-stretch" ? [] : [String(one), String(other)];
    if (issue.code === "dead-stretch" && (lower === undefined || upper === undefined)) return [];
    const stretch = { from: Number(from), to: Number(to), patternIds };
    return closeStretch(kit, stretch, pattern.control);
  }
  if (issue.code === "unknown-id" && typeof issue.path.at(-1) === "number")
    return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  if (issue.code === "when-field") return [{ words: "Take it out", edit: now => deleteAt(now, issue.path) }];
  return [];
}
