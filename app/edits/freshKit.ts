import type { Kit } from "#core";

/** A kit to begin with: one control, one rule that works. `nowMs` makes its id its own. */
export function freshKit(nowMs: number): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: `kit-${nowMs.toString(36)}`,
    name: "New kit",
    rate: 60,
    controls: [{ id: "tap", name: "Tap", bindings: [["key:Space"], ["pad:0"]] }],
    patterns: [{ id: "tap-hold", name: "Tap hold", kind: "hold", control: "tap", for: "18f", fire: "reach" }],
  };
}
