import { applyAssist, findAssist, type Kit } from "#core";
import type { Variant } from "../../storage/records";
import type { Choice } from "../../ui/ChoiceWord";

/** The present rules. */
export const NOW = "now";
const VARIANT = "variant ";
const ASSIST = "assist ";

/** The versions of a kit there are: the present rules, those kept as variants, and its assists. */
export function listVersions(kit: Kit, variants: readonly Variant[]): Choice[] {
  return [
    { value: NOW, label: "the present rules" },
    ...variants.map(({ id, name }) => ({ value: `${VARIANT}${id}`, label: name })),
    ...(kit.assists ?? []).map(({ id, name }) => ({ value: `${ASSIST}${id}`, label: `with “${name}”` })),
  ];
}

/** The rules of a version; undefined where it is not there any more. */
export function readVersion(value: string, kit: Kit, variants: readonly Variant[]): Kit | undefined {
  if (value === NOW) return kit;
  if (value.startsWith(VARIANT)) return variants.find(({ id }) => id === value.slice(VARIANT.length))?.kit;
  const assist = findAssist(kit, value.slice(ASSIST.length));
  return assist && applyAssist(kit, assist);
}
