import { isOutputGate, outputGate } from "#core";
import { CONTROL_FIELDS, type IdList } from "./renameId";
import { idsUnder, NAMING_FIELDS } from "./ruleEdits";

/** Returns the ids that a part of a kit refers to, by list; an output gate is a reference to its move. */
export function referencesOf(item: unknown): Readonly<Record<IdList, readonly string[]>> {
  const gates = idsUnder(item, NAMING_FIELDS.gates);
  const outputs = gates.filter(isOutputGate).map(id => id.slice(outputGate("").length));
  return {
    controls: idsUnder(item, CONTROL_FIELDS),
    patterns: idsUnder(item, NAMING_FIELDS.patterns),
    gates: gates.filter(id => !isOutputGate(id)),
    moves: [...idsUnder(item, NAMING_FIELDS.moves), ...outputs],
    prompts: idsUnder(item, NAMING_FIELDS.prompts),
  };
}

/** Returns the strings of the fields `dir` at any depth: a stick and a direction, "stick:6". */
export const directionsIn = (item: unknown) => idsUnder(item, new Set(["dir"]));
/** Returns the id of the stick of such a string. */
export const stickOf = (direction: string) => direction.slice(0, direction.lastIndexOf(":"));
