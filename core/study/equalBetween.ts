import type { Check } from "../checks/checksSchema";
import type { Swept } from "./sweep/swept";

/** Returns whether a check names lost events, whose frames follow a buffer even where they decide nothing. */
export function namesLosses(check: Check): boolean {
  return JSON.stringify(check).includes('"kind":"lost"');
}

/**
 * Returns whether runs of the same input at two values of a number that decide the same do so at every value between. It is
 * so for buffers and coyotes of moves: they are only compared with ages, and a request that waits longer, or a gate that
 * counts for longer, without deciding anything, decides nothing when it does so for a part of that time.
 */
export function isEqualBetween(swept: Swept): boolean {
  if (swept.kind === "group") return swept.group === "buffers" || swept.group === "coyotes";
  if (swept.kind !== "length" || swept.path[0] !== "moves") return false;
  const field = swept.path.findLast(step => typeof step === "string");
  return field === "buffer" || field === "coyote";
}
