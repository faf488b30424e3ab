import { stickOf } from "../../kit/ingredients";
import type { Starter } from "../../kit/starter";

/** Starting points for a new sequence. */
export const sequenceStarters: readonly Starter[] = [
  {
    id: "motion",
    words: "Motion and button",
    line: "a stick turned down, to the corner and forward, then a press",
    make(control, take, kit) {
      const id = take("pattern", "Quarter turn");
      const { id: stick, bundle } = stickOf(kit, take);
      return {
        ...bundle,
        patterns: [
          {
            id,
            name: "Quarter turn",
            kind: "sequence",
            gap: "10f",
            steps: [
              { dir: `${stick}:2` },
              { dir: `${stick}:3` },
              { dir: `${stick}:6` },
              { press: control.id },
            ],
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
];
