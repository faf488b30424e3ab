import type { Kit } from "../kit/schema";
import type { Swept } from "../study/sweep/swept";
import { anyKit } from "./arbitraries";

/** Random moves on plain presses, so that buffers and coyotes decide often. */
export const anyPresses = anyKit.map((kit): Kit => {
  const patterns = kit.patterns.map(({ id, name }, p) => ({
    id,
    name,
    kind: "press" as const,
    control: kit.controls[p % 2]!.id,
  }));
  return { ...kit, patterns, prompts: [] };
});

/** Returns the numbers of a kit of which equal ends decide what lies between (see isEqualBetween). */
export function listShared(kit: Kit): Swept[] {
  const fields = (kit.moves ?? []).flatMap((move, m) => [
    ["moves", m, "buffer"],
    ...(move.needs ?? []).map((_, n) => ["moves", m, "needs", n, "coyote"]),
  ]);
  return [
    ...fields.map(path => ({ kind: "length", path, unit: "f" }) as const),
    { kind: "group", group: "buffers" },
    { kind: "group", group: "coyotes" },
  ];
}
