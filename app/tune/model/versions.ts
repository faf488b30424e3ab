import { applyAssist, findAssist, type Kit } from "#core";
import { PRESENT_VERSION } from "../../document/studySettings";
import type { Variant } from "../../storage/records";
import type { Choice } from "../../ui/ChoiceWord";

const VARIANT = "variant ";
const ASSIST = "assist ";

/** Returns the versions of a kit: the present rules, its variants, and its assists. */
export function listVersions(kit: Kit, variants: readonly Variant[]): Choice[] {
  return [
    { value: PRESENT_VERSION, label: "the present rules" },
    ...variants.map(({ id, name }) => ({ value: `${VARIANT}${id}`, label: name })),
    ...(kit.assists ?? []).map(({ id, name }) => ({ value: assistVersion(id), label: `with “${name}”` })),
  ];
}

/** Returns the rules of a version; undefined if it no longer exists. */
export function readVersion(value: string, kit: Kit, variants: readonly Variant[]): Kit | undefined {
  if (value === PRESENT_VERSION) return kit;
  if (value.startsWith(VARIANT)) return variants.find(({ id }) => id === value.slice(VARIANT.length))?.kit;
  const assist = findAssist(kit, value.slice(ASSIST.length));
  return assist && applyAssist(kit, assist);
}

/** Returns the id of the variant that a version is; undefined for the present rules and for assists. */
export function variantOf(value: string): string | undefined {
  return value.startsWith(VARIANT) ? value.slice(VARIANT.length) : undefined;
}

/** Returns the two versions that are compared first: a variant with the present rules, or these with an assist. Two or more choices. */
export function firstPair(choices: readonly Choice[]): { readonly one: string; readonly two: string } {
  const other = choices[1]!.value;
  return variantOf(other) === undefined
    ? { one: PRESENT_VERSION, two: other }
    : { one: other, two: PRESENT_VERSION };
}

/** Returns the value of an assist as a version. */
export const assistVersion = (id: string): string => `${ASSIST}${id}`;
