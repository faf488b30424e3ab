const NAMES: ReadonlyMap<string, string> = new Map(
  Object.entries({
    ArrowUp: "↑",
    ArrowDown: "↓",
    ArrowLeft: "←",
    ArrowRight: "→",
    Space: "Space",
    Enter: "Enter",
    Backspace: "Backspace",
    ShiftLeft: "left Shift",
    ShiftRight: "right Shift",
    ControlLeft: "left Ctrl",
    ControlRight: "right Ctrl",
    AltLeft: "left Alt",
    AltRight: "right Alt",
    Comma: ",",
    Period: ".",
    Slash: "/",
    Semicolon: ";",
    Quote: "'",
    BracketLeft: "[",
    BracketRight: "]",
    Minus: "-",
    Equal: "=",
    Backquote: "`",
    Backslash: "\\",
    Tab: "Tab",
    CapsLock: "Caps",
    PageUp: "PgUp",
    PageDown: "PgDn",
    Insert: "Ins",
    Delete: "Del",
    MetaLeft: "Meta",
    MetaRight: "Meta",
  }),
);

const PAD_BUTTONS = [
  "south",
  "east",
  "west",
  "north",
  "left bumper",
  "right bumper",
  "left trigger",
  "right trigger",
  "select",
  "start",
  "left stick",
  "right stick",
  "up",
  "down",
  "left",
  "right",
  "home",
];

/**
 * Returns the name of a code: "key:KeyJ" is "J", "pad:0" is "pad south", "pad2:0" is "pad 2 south". `labelOf`
 * returns the label of a key on the user's keyboard, if it is known; without it letters and digits are named
 * by a US layout. An unknown name is returned as it is.
 */
export function formatCode(code: string, labelOf?: (key: string) => string | undefined): string {
  const [device, name = ""] = code.split(":");
  if (device === "mouse")
    return ["left click", "middle click", "right click"][Number(name)] ?? `mouse ${name}`;
  if (device === "wheel") return `wheel ${name}`;
  const pad = /^pad(\d?)$/.exec(device!);
  if (pad) {
    const axis = /^axis(\d+)([+-])$/.exec(name);
    const word = pad[1] ? `pad ${pad[1]}` : "pad";
    return axis
      ? `${word} axis ${axis[1]} ${axis[2] === "+" ? "forward" : "back"}`
      : `${word} ${PAD_BUTTONS[Number(name)] ?? name}`;
  }
  const label = /^(Key|Digit)/.test(name) ? labelOf?.(name) : undefined;
  return label || (NAMES.get(name) ?? name.replace(/^Key|^Digit/, "").replace(/^Numpad/, "num "));
}

/** Returns the names of a binding's codes, joined by "+". `labelOf` as for `formatCode`. */
export function formatBinding(
  binding: readonly string[],
  labelOf?: (key: string) => string | undefined,
): string {
  return binding.map(code => formatCode(code, labelOf)).join(" + ");
}
