import { BENCH_KEYS } from "./benchKeys";

/** Keys that do not reach a page reliably, with what reserves them. */
const KEPT: Readonly<Record<string, string>> = {
  "key:Escape": "Escape gives the keys back to the page",
  "key:MetaLeft": "the system keeps this key",
  "key:MetaRight": "the system keeps this key",
  "key:ContextMenu": "the system may open a menu with it",
  "key:F11": "the browser may go full screen with it",
  "key:F12": "the browser may open its tools with it",
  "key:PrintScreen": "the system keeps this key",
};

/** Keys that the browser handles itself while Ctrl is held. */
const KEPT_WITH_CTRL = ["key:KeyW", "key:KeyT", "key:KeyN", "key:Tab", "key:KeyQ"];
const CTRL = ["key:ControlLeft", "key:ControlRight"];
const ALT = ["key:AltLeft", "key:AltRight"];

/** Returns whether a binding uses a key of the bench, which never plays a control. */
export function isOfBench(binding: readonly string[]): boolean {
  return binding.some(code => code in BENCH_KEYS);
}

/** Returns a warning if the browser or the system reserves a binding; empty otherwise. */
export function warnOfBinding(binding: readonly string[]): string {
  if (isOfBench(binding))
    return "this key works the stage while you play: it freezes, steps or slows the game";
  const alone = binding.map(code => KEPT[code]).find(Boolean);
  if (alone) return alone;
  const has = (codes: readonly string[]) => binding.some(code => codes.includes(code));
  if (has(CTRL) && has(KEPT_WITH_CTRL)) return "the browser keeps this shortcut for itself";
  if (has(ALT) && has(["key:Tab", "key:F4"])) return "the system keeps this shortcut for itself";
  return "";
}

/**
 * Returns the names of two controls whose bindings conflict: Ctrl on one and W, T or N on another close or
 * open windows when held together. Undefined if there are none.
 */
export function findCtrlClash(
  controls: readonly { readonly name: string; readonly bindings: readonly (readonly string[])[] }[],
): { readonly ctrl: string; readonly other: string } | undefined {
  const playing = (codes: readonly string[]) =>
    controls.find(control =>
      control.bindings.some(binding => binding.length === 1 && codes.includes(binding[0]!)),
    );
  const ctrl = playing(CTRL);
  const other = playing(KEPT_WITH_CTRL);
  return ctrl && other ? { ctrl: ctrl.name, other: other.name } : undefined;
}
