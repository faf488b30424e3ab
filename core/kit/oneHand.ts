import type { Layout } from "./layout";
import type { Kit } from "./schema";

/** The keys one hand reaches from its resting place: a stick's four, then the others, easiest first. */
const REACH = {
  left: {
    stick: { up: "KeyW", left: "KeyA", down: "KeyS", right: "KeyD" },
    others: [
      "Space",
      "KeyE",
      "KeyF",
      "KeyQ",
      "KeyR",
      "KeyC",
      "KeyX",
      "KeyZ",
      "KeyV",
      "ShiftLeft",
      "Digit1",
      "Digit2",
      "Digit3",
      "Digit4",
    ],
  },
  right: {
    stick: { up: "KeyI", left: "KeyJ", down: "KeyK", right: "KeyL" },
    others: [
      "Space",
      "KeyU",
      "KeyO",
      "KeyH",
      "KeyP",
      "KeyN",
      "KeyM",
      "Comma",
      "Period",
      "Semicolon",
      "Digit7",
      "Digit8",
      "Digit9",
      "Digit0",
    ],
  },
} as const;

const SIDES = ["up", "left", "down", "right"] as const;

/**
 * Returns a layout in which one hand reaches every control: the first stick on the four keys under the
 * fingers, the other controls on the keys around them, in kit order. Pad bindings are kept. Controls without
 * a free key are left out and keep their bindings. Keys are W3C codes.
 */
export function oneHandLayout(kit: Kit, hand: "left" | "right", id: string, name: string): Layout {
  const { stick, others } = REACH[hand];
  const keys = new Map<string, string>();
  const [first] = kit.sticks ?? [];
  for (const side of SIDES) if (first) keys.set(first[side], stick[side]);
  const free: string[] = [...others, ...(first ? [] : Object.values(stick))];
  for (const control of kit.controls) {
    if (keys.has(control.id)) continue;
    const key = free.shift();
    if (key !== undefined) keys.set(control.id, key);
  }
  const bindings = Object.fromEntries(
    [...keys].map(([control, key]) => {
      const kept = kit.controls.find(item => item.id === control)?.bindings ?? [];
      const pads = kept.filter(codes => codes.every(code => !code.startsWith("key:")));
      return [control, [[`key:${key}`], ...pads]];
    }),
  );
  return { format: "moss-tap/layout", version: 1, id, name, bindings };
}
