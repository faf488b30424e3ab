import type { Starter } from "../../kit/starter";

/** Starting points for a new charge. */
export const chargeStarters: readonly Starter[] = [
  {
    id: "charge",
    words: "Charge and let go",
    line: "the longer the hold the more it gives, in three levels",
    make(control, take) {
      const id = take("pattern", `${control.name} charge`);
      return {
        patterns: [
          {
            id,
            name: `${control.name} charge`,
            kind: "charge",
            control: control.id,
            full: "60f",
            levels: [
              { name: "one", at: "15f" },
              { name: "two", at: "35f" },
              { name: "three", at: "60f" },
            ],
            curve: "ease-in",
            output: [0, 100],
            fire: "release",
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];
