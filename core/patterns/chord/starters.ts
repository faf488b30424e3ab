import type { Starter } from "../../kit/starter";

/** Starting points for a new chord. */
export const chordStarters: readonly Starter[] = [
  {
    id: "chord",
    words: "Two buttons together",
    line: "pressed as one, within a few frames of each other",
    make(control, take, kit) {
      const id = take("pattern", "Together");
      const other = kit.controls.find(item => item !== control);
      const second = other ?? { id: take("control", "Other"), name: "Other", bindings: [["key:KeyL"]] };
      return {
        ...(other ? {} : { controls: [second] }),
        patterns: [{ id, name: "Together", kind: "chord", controls: [control.id, second.id], spread: "4f" }],
        opens: `pattern:${id}`,
      };
    },
  },
];
