/** One thing a device reported. `value` is 0 to 1: keys and most buttons know only the two ends. */
export interface RawReport {
  readonly code: string;
  readonly value: number;
  /** The system's own repeat of a key that is held. */
  readonly isRepeat: boolean;
}

/** Why a report changes nothing, or "" where it does. */
export type DropReason = "" | "repeat" | "same" | "not bound";

/** A control as hands play it: any whole binding plays it, as far as its least pressed code is pressed. */
export interface HeldControl {
  readonly id: string;
  readonly bindings: readonly (readonly string[])[];
}

/**
 * What is held right now, cleaned: repeats dropped, every code and every control let go when its device goes. Knows
 * no device and no clock; feed it what was reported, ask it for the value of each control.
 */
export interface Held {
  readonly setControls: (controls: readonly HeldControl[]) => void;
  readonly report: (raw: RawReport) => DropReason;
  /** A control held on screen, 0 to 1. */
  readonly holdOnScreen: (controlId: string, value: number) => void;
  /** A control's value, 0 to 1. */
  readonly valueOf: (controlId: string) => number;
  /** Codes held down, in the order in which they went down. */
  readonly codesDown: () => readonly string[];
  readonly isHeld: () => boolean;
  /** Lets go every code for which this is true; gives those that were held. */
  readonly letGo: (isGone: (code: string) => boolean) => readonly string[];
  /** Lets go everything, the screen too. */
  readonly letAllGo: () => void;
}

/** How far a code must be pressed to be named as held; thresholds of controls are the kit's own. */
const NAMED_FROM = 0.5;

export function createHeld(): Held {
  const values = new Map<string, number>();
  const onScreen = new Map<string, number>();
  let controls: readonly HeldControl[] = [];
  let bound = new Set<string>();

  return {
    setControls(next) {
      controls = next;
      bound = new Set(next.flatMap(control => control.bindings.flat()));
    },
    report({ code, value, isRepeat }) {
      const was = values.get(code) ?? 0;
      if (isRepeat || (value === 1 && was === 1)) return "repeat";
      if (value === was) return "same";
      if (value === 0) values.delete(code);
      else values.set(code, value);
      return bound.has(code) ? "" : "not bound";
    },
    holdOnScreen(controlId, value) {
      if (value === 0) onScreen.delete(controlId);
      else onScreen.set(controlId, value);
    },
    valueOf(controlId) {
      const bindings = controls.find(control => control.id === controlId)?.bindings ?? [];
      const played = bindings.map(codes => Math.min(...codes.map(code => values.get(code) ?? 0)));
      return Math.max(onScreen.get(controlId) ?? 0, 0, ...played);
    },
    codesDown: () => [...values].flatMap(([code, value]) => (value >= NAMED_FROM ? [code] : [])),
    isHeld: () => values.size > 0 || onScreen.size > 0,
    letGo(isGone) {
      const gone = [...values.keys()].filter(isGone);
      for (const code of gone) values.delete(code);
      return gone;
    },
    letAllGo() {
      values.clear();
      onScreen.clear();
    },
  };
}

/** Modifier keys by the flag that every key event carries about them. */
const MODIFIERS = {
  shiftKey: ["key:ShiftLeft", "key:ShiftRight"],
  ctrlKey: ["key:ControlLeft", "key:ControlRight"],
  altKey: ["key:AltLeft", "key:AltRight"],
  metaKey: ["key:MetaLeft", "key:MetaRight"],
} as const;

/**
 * Modifier keys that are held here though a key event says they are up: their own key up never came (the system took
 * it for a shortcut of its own). The event's own code is left out, since it is just being reported.
 */
export function listStuckModifiers(
  event: Readonly<Record<keyof typeof MODIFIERS, boolean>> & { readonly code: string },
  codesDown: readonly string[],
): string[] {
  return Object.entries(MODIFIERS).flatMap(([flag, codes]) =>
    event[flag as keyof typeof MODIFIERS]
      ? []
      : codes.filter(code => codesDown.includes(code) && code !== `key:${event.code}`),
  );
}
