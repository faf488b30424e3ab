import { applyAssist, findAssist, type Kit } from "#core";
import type { Variant } from "../../storage/records";
import type { Choice } from "../../ui/ChoiceWord";

/** The value of the present rules. */
export const NOW = "now";
const VARIANT = "variant ";
const ASSIST = "assist ";

/** Returns the versions of a kit: the present rules, its variants, and its assists. */
export function listVersions(kit: Kit, variants: readonly Variant[]): Choice[] {
  return [
    { value: NOW, label: "the present rules" },
    ...variants.map(({ id, name }) => ({ value: `${VARIANT}${id}`, label: name })),
    ...(kit.assists ?? []).map(({ id, name }) => ({ value: `${ASSIST}${id}`, label: `with “${name}”` })),
  ];
}

/** Returns the rules of a version; undefined if it no longer exists. */
export function readVersion(value: string, kit: Kit, variants: readonly Variant[]): Kit | undefined {
  if (value === NOW) return kit;
  if (value.startsWith(VARIANT)) return variants.find(({ id }) => id === value.slice(VARIANT.length))?.kit;
  const assist = findAssist(kit, value.slice(ASSIST.length));
  return assist && applyAssist(kit, assist);
}
