import { formatBinding, type Kit } from "#core";
import type { NamedRules } from "../kind";
import { escapeHtml } from "./escapeHtml";
import { listRules } from "./sentences";
import { table } from "./table";

/** Returns the keys and buttons of each control, as text. */
function listBindings(kit: Kit): Map<string, string> {
  return new Map(
    kit.controls.map(({ id, name, bindings }) => [
      `controls ${id}`,
      `${name || id}: ${bindings.map(codes => formatBinding(codes)).join(", ") || "no key"}`,
    ]),
  );
}

/**
 * Returns all statements about a kit by their subject: its rate, its controls and the sentences of its rules.
 */
function formatRules(kit: Kit): Map<string, string> {
  const rules = listRules(kit).map(({ key, sentence }) => [key, sentence] as const);
  return new Map([["rate", `${kit.rate} frames a second`], ...listBindings(kit), ...rules]);
}

/**
 * Lists the changes since an earlier version of the rules: each statement that was changed, added or removed.
 * Old statements use the old names.
 */
export function formatChangesSince(kit: Kit, since: NamedRules): string {
  const before = formatRules(since.kit);
  const after = formatRules(kit);
  const keys = [...new Set([...after.keys(), ...before.keys()])].filter(
    key => before.get(key) !== after.get(key),
  );
  const cell = (words: string | undefined) =>
    words === undefined ? '<span class="soft">not there</span>' : escapeHtml(words);
  const rows = keys.map(key => [cell(before.get(key)), cell(after.get(key))]);
  const title = `<h2>What changed since “${escapeHtml(since.name)}”</h2>`;
  return rows.length > 0
    ? `${title}${table(["it was", "it is"], rows)}`
    : `${title}<p class="soft">Nothing: rules, controls and rate are as they were.</p>`;
}
