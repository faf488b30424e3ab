import type { Starter } from "../../kit/starter";

/** Starting points for a new hold. */
export const holdStarters: readonly Starter[] = [
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
    line: "a short press does one thing, a long press another, and every press does one of them",
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
];
