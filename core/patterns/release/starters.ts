import type { Starter } from "../../kit/starter";

/** Starting points for a new release pattern. */
export const releaseStarters: readonly Starter[] = [
  {
    id: "release",
    words: "Release",
    line: "on the frame it comes up",
    make(control, take) {
      const id = take("pattern", `${control.name} release`);
      return {
        patterns: [{ id, name: `${control.name} release`, kind: "release", control: control.id }],
        opens: `pattern:${id}`,
      };
    },
  },
];
