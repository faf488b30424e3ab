import { createTrier, type Kit, type Price } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";

/** Computes the effects of each changed kit over all takes; undefined for one with faults. */
export const pricesJob: Job<
  { readonly kit: Kit; readonly changes: readonly Kit[] },
  readonly (Price | undefined)[]
> = async ({ kit, changes }, takes, tools) => {
  const trier = createTrier(kit, takes, prepareStudied());
  const prices: (Price | undefined)[] = [];
  for (const changed of changes) {
    prices.push(trier?.tryChange(changed, [])?.price);
    tools.reportProgress(prices.length, changes.length);
    await tools.yieldNow();
  }
  return { value: prices };
};
