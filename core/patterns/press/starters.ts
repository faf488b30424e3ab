import { press } from "../../kit/ingredients";
import type { Starter } from "../../kit/starter";

/** Starting points for a new press pattern. */
export const pressStarters: readonly Starter[] = [
  {
    id: "press",
    words: "Press",
    line: "on the frame it goes down",
    make(control, take) {
      const id = take("pattern", `${control.name} press`);
      return { patterns: [press(id, `${control.name} press`, control.id)], opens: `pattern:${id}` };
    },
  },
];
