import { formatIssue, type Issue, type Kit } from "#core";

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
