/** The position of a key or button on a drawn board, in key widths. */
export interface BoardKey {
  readonly code: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

/** Rows of W3C key codes of a common keyboard; a number is a gap, a pair is a key of another width. */
const ROWS: readonly (readonly (string | number | readonly [string, number])[])[] = [
  [
    "Backquote",
    ...row("Digit", "1234567890"),
    "Minus",
    "Equal",
    ["Backspace", 2],
    0.4,
    "Insert",
    "Home",
    "PageUp",
  ],
  [
    ["Tab", 1.5],
    ...row("Key", "QWERTYUIOP"),
    "BracketLeft",
    "BracketRight",
    ["Backslash", 1.5],
    0.4,
    "Delete",
    "End",
    "PageDown",
  ],
  [["CapsLock", 1.8], ...row("Key", "ASDFGHJKL"), "Semicolon", "Quote", ["Enter", 2.2]],
  [
    ["ShiftLeft", 2.3],
    ...row("Key", "ZXCVBNM"),
    "Comma",
    "Period",
    "Slash",
    ["ShiftRight", 2.7],
    1.4,
    "ArrowUp",
  ],
  [
    ["ControlLeft", 1.5],
    ["MetaLeft", 1.2],
    ["AltLeft", 1.3],
    ["Space", 6.4],
    ["AltRight", 1.3],
    ["MetaRight", 1.2],
    ["ControlRight", 2.1],
    0.4,
    "ArrowLeft",
    "ArrowDown",
    "ArrowRight",
  ],
];

function row(prefix: string, letters: string): string[] {
  return [...letters].map(letter => prefix + letter);
}

/** The size of the drawn keyboard, in key widths. */
export const BOARD_SIZE = { width: 18.4, height: ROWS.length };

/** Returns the position of every key of the drawn keyboard. */
export function layoutBoard(): BoardKey[] {
  return ROWS.flatMap((keys, y) => {
    let x = 0;
    return keys.flatMap((key): BoardKey[] => {
      if (typeof key === "number") {
        x += key;
        return [];
      }
      const [name, width] = typeof key === "string" ? [key, 1] : key;
      const laid = { code: `key:${name}`, x, y, width };
      x += width;
      return [laid];
    });
  });
}

/**
 * The positions of the buttons of a pad in the standard mapping, as circles; half-axes are around their
 * stick. In hundredths.
 */
export const PAD_SPOTS: readonly {
  readonly code: string;
  readonly x: number;
  readonly y: number;
  readonly r: number;
}[] = [
  { code: "pad:6", x: 18, y: 6, r: 5 },
  { code: "pad:4", x: 18, y: 18, r: 5 },
  { code: "pad:7", x: 82, y: 6, r: 5 },
  { code: "pad:5", x: 82, y: 18, r: 5 },
  { code: "pad:8", x: 42, y: 30, r: 4 },
  { code: "pad:9", x: 58, y: 30, r: 4 },
  { code: "pad:16", x: 50, y: 21, r: 4 },
  { code: "pad:12", x: 18, y: 33, r: 4.4 },
  { code: "pad:14", x: 9, y: 42, r: 4.4 },
  { code: "pad:15", x: 27, y: 42, r: 4.4 },
  { code: "pad:13", x: 18, y: 51, r: 4.4 },
  { code: "pad:3", x: 82, y: 32, r: 5 },
  { code: "pad:2", x: 72, y: 42, r: 5 },
  { code: "pad:1", x: 92, y: 42, r: 5 },
  { code: "pad:0", x: 82, y: 52, r: 5 },
  { code: "pad:10", x: 36, y: 64, r: 5 },
  { code: "pad:axis1-", x: 36, y: 54, r: 3.6 },
  { code: "pad:axis1+", x: 36, y: 74, r: 3.6 },
  { code: "pad:axis0-", x: 26, y: 64, r: 3.6 },
  { code: "pad:axis0+", x: 46, y: 64, r: 3.6 },
  { code: "pad:11", x: 66, y: 64, r: 5 },
  { code: "pad:axis3-", x: 66, y: 54, r: 3.6 },
  { code: "pad:axis3+", x: 66, y: 74, r: 3.6 },
  { code: "pad:axis2-", x: 56, y: 64, r: 3.6 },
  { code: "pad:axis2+", x: 76, y: 64, r: 3.6 },
];
