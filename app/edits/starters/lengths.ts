import { press } from "./ingredients";
import type { Starter } from "./starter";

/** Starters about how long one control is held. */
export const LENGTH_STARTERS: readonly Starter[] = [
  {
    id: "hold",
    words: "Hold",
    line: "held long enough, with a meter that fills",
    make(control, take) {
      const id = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id, name: `${control.name} hold`, kind: "hold", control: control.id, for: "30f", fire: "reach" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "tap-or-hold",
    words: "Tap or hold",
    line: "two meanings on one button, and no length of press left over",
    make(control, take) {
      const tap = take("pattern", `${control.name} tap`);
      const hold = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id: tap, name: `${control.name} tap`, kind: "tap", control: control.id, max: "11f" },
          {
            id: hold,
            name: `${control.name} hold`,
            kind: "hold",
            control: control.id,
            for: "12f",
            fire: "reach",
          },
        ],
        opens: `pattern:${tap}`,
      };
    },
  },
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
  {
    id: "press",
    words: "Press",
    line: "on the frame it goes down",
    make(control, take) {
      const id = take("pattern", `${control.name} press`);
      return { patterns: [press(id, `${control.name} press`, control.id)], opens: `pattern:${id}` };
    },
  },
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
