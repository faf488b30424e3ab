import type { Check } from "../checks/checksSchema";
import type { Swept, SweptGroup } from "./sweep/swept";

/** Returns whether a check names lost events, whose frames follow a buffer even where they decide nothing. */
export function namesLosses(check: Check): boolean {
  return JSON.stringify(check).includes('"kind":"lost"');
}

/** The groups of numbers of which runs are shared, with the field of each. */
const ALLOWANCES = new Map<SweptGroup, "buffer" | "coyote">([
  ["buffers", "buffer"],
  ["coyotes", "coyote"],
]);

/** Returns which allowance of moves a number is, or every number of a group; undefined for others. */
function allowanceOf(swept: Swept): "buffer" | "coyote" | undefined {
  if (swept.kind === "number") return undefined;
  if (swept.kind === "group") return ALLOWANCES.get(swept.group);
  const field = swept.path.findLast(step => typeof step === "string");
  return swept.path[0] === "moves" && (field === "buffer" || field === "coyote") ? field : undefined;
}

/**
 * Returns whether runs of the same input at two values of a number that decide the same do so at every value between. It is
 * so for buffers and coyotes of moves: they are only compared with ages, and a request that waits longer, or a gate that
 * counts for longer, without deciding anything, decides nothing when it does so for a part of that time.
 */
export const isEqualBetween = (swept: Swept): boolean => allowanceOf(swept) !== undefined;

/** Returns whether a number is a buffer, or a group of them: how long requests wait. */
export const isBuffer = (swept: Swept): boolean => allowanceOf(swept) === "buffer";
