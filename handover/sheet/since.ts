import type { Kit } from "#core";
import type { NamedRules } from "../kind";
import { escapeHtml } from "./escapeHtml";
import { listRules } from "./sentences";
import { table } from "./table";

/** Returns the keys and buttons of each control, as text. */
function listBindings(kit: Kit): Map<string, string> {
  return new Map(
    kit.controls.map(({ id, name, bindings }) => [
      `controls ${id}`,
      `${name || id}: ${bindings.map(codes => codes.join(" + ")).join(", ") || "no key"}`,
    ]),
  );
}

/**
 * Returns all statements about a kit by their subject: its rate, its controls and the sentences of its rules.
 */
function tell(kit: Kit): Map<string, string> {
  const rules = listRules(kit).map(({ key, sentence }) => [key, sentence] as const);
  return new Map([["rate", `${kit.rate} frames a second`], ...listBindings(kit), ...rules]);
}

/**
 * Lists the changes since an earlier version of the rules: each statement that was changed, added or removed.
 * Old statements use the old names.
 */
export function formatChangesSince(kit: Kit, since: NamedRules): string {
  const was = tell(since.kit);
  const is = tell(kit);
  const keys = [...new Set([...is.keys(), ...was.keys()])].filter(key => was.get(key) !== is.get(key));
  const cell = (words: string | undefined) =>
    words === undefined ? '<span class="soft">not there</span>' : escapeHtml(words);
  const rows = keys.map(key => [cell(was.get(key)), cell(is.get(key))]);
  const title = `<h2>What changed since “${escapeHtml(since.name)}”</h2>`;
  return rows.length > 0
    ? `${title}${table(["it was", "it is"], rows)}`
    : `${title}<p class="soft">Nothing: rules, controls and rate are as they were.</p>`;
}
