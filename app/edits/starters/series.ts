import { stickOf } from "./ingredients";
import type { Starter } from "./starter";

/** Starters about several presses, one after the other or together. */
export const SERIES_STARTERS: readonly Starter[] = [
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
