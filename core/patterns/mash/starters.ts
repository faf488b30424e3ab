import type { Starter } from "../../kit/starter";

/** Starting points for a new mash. */
export const mashStarters: readonly Starter[] = [
  {
    id: "mash",
    words: "Mash",
    line: "so many presses in so little time",
    make(control, take) {
      const id = take("pattern", `${control.name} mash`);
      return {
        patterns: [
          { id, name: `${control.name} mash`, kind: "mash", controls: [control.id], count: 6, within: "60f" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];
