import { gateName, listPatternSights } from "#core";
import { bodyUseOf, type Rules } from "#stage";

/**
 * Describes how a body of the stage uses a control directly in a mode: "walks left, not while Stunned is open". `control` is
 * its index in the program. Undefined if the body does not use it.
 */
export function describeBodyUse(
  { kit, program }: Pick<Rules, "kit" | "program">,
  control: number,
  mode: number,
): string | undefined {
  const use = bodyUseOf(kit, program.controls[control]!.id);
  if (!use) return undefined;
  const isSeen = listPatternSights(program, control, mode).some(({ verdict }) => verdict === "hears");
  if (use.isByRules && !isSeen) return `never ${use.words} here, because no rule uses it`;
  const gates = use.halts.map(id => gateName(kit, id)).join(" or ");
  const ways = [
    ...(use.isByRules ? ["while a rule uses it"] : []),
    ...(gates ? [`not while ${gates} is open`] : []),
  ];
  return [use.words, ...ways].join(", ");
}
