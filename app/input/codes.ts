import { keyLabels } from "./keyLabels";

const NAMES: Readonly<Record<string, string>> = {
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
};

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
 * Formats a code: "key:KeyJ" is "J", "pad:0" is "pad south", "pad2:0" is "pad 2 south". Keys are named by the user's keyboard layout if
 * the browser provides it, otherwise by a US layout.
 */
export function formatCode(code: string): string {
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
  const label = keyLabels.getState().get(name);
  if (label && /^(Key|Digit)/.test(name)) return label;
  return NAMES[name] ?? name.replace(/^Key|^Digit/, "").replace(/^Numpad/, "num ");
}

/** Formats a binding: its codes joined by "+". */
export function formatBinding(binding: readonly string[]): string {
  return binding.map(formatCode).join(" + ");
}
