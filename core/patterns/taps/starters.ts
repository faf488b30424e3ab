import type { Starter } from "../../kit/starter";

/** Starting points for a new count of taps. */
export const tapsStarters: readonly Starter[] = [
  {
    id: "double",
    words: "Double tap",
    line: "twice within a moment; the single tap is not kept waiting",
    make(control, take) {
      const id = take("pattern", `${control.name} twice`);
      return {
        patterns: [
          {
            id,
            name: `${control.name} twice`,
            kind: "taps",
            control: control.id,
            count: 2,
            gap: "14f",
            answer: "nth",
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];
