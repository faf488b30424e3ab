import type { Stick } from "#core";
import { shapeStick } from "./stickShape";

/** One report of a device. `value` is 0 to 1; keys and most buttons only use the ends. */
export interface RawReport {
  readonly code: string;
  readonly value: number;
  /** Whether it is the system's repeat of a held key. */
  readonly isRepeat: boolean;
}

/** Why a report has no effect, or "" if it has one. */
export type DropReason = "" | "repeat" | "same" | "not bound";

/** A control and its bindings: any complete binding plays it, with the smallest value of its codes. */
export interface HeldControl {
  readonly id: string;
  readonly bindings: readonly (readonly string[])[];
}

/**
 * The state of all held codes and controls, without repeats; everything of a device is released when it
 * disconnects. Knows neither devices nor clocks: feed it reports, and read the value of each control.
 */
export interface Held {
  /** Half-axes of a pad on the controls of a stick are shaped together by the stick's zone and ways. */
  readonly setControls: (controls: readonly HeldControl[], sticks?: readonly Stick[]) => void;
  readonly report: (raw: RawReport) => DropReason;
  /** Holds a control on screen, 0 to 1. */
  readonly holdOnScreen: (controlId: string, value: number) => void;
  /** Returns a control's value, 0 to 1. */
  readonly valueOf: (controlId: string) => number;
  /** Returns the codes held down, in the order of their presses. */
  readonly codesDown: () => readonly string[];
  readonly isHeld: () => boolean;
  /** Releases every code for which the predicate is true; returns those that were held. */
  readonly letGo: (isGone: (code: string) => boolean) => readonly string[];
  /** Releases everything, including on-screen controls. */
  readonly letAllGo: () => void;
}

const SIDES = ["up", "down", "left", "right"] as const;

/** Returns whether a binding is one half-axis of a pad. */
const isHalfAxis = (codes: readonly string[]) => codes.length === 1 && /^pad\d?:axis/.test(codes[0]!);

/** The value from which a code counts as held for display; thresholds of controls belong to the kit. */
const NAMED_FROM = 0.5;

export function createHeld(): Held {
  const values = new Map<string, number>();
  const onScreen = new Map<string, number>();
  let controls: readonly HeldControl[] = [];
  let bound = new Set<string>();
  let shaped: ReadonlyMap<string, { readonly stick: Stick; readonly side: (typeof SIDES)[number] }> =
    new Map();

  /** Returns the largest value of a control's bindings of some sort, 0 to 1. */
  function playedOn(controlId: string, isOfSort: (codes: readonly string[]) => boolean): number {
    const bindings = controls.find(control => control.id === controlId)?.bindings ?? [];
    const played = bindings
      .filter(isOfSort)
      .map(codes => Math.min(...codes.map(code => values.get(code) ?? 0)));
    return Math.max(0, ...played);
  }

  return {
    setControls(next, sticks = []) {
      controls = next;
      shaped = new Map(
        sticks
          .filter(({ zone, ways }) => zone !== undefined || ways !== undefined)
          .flatMap(stick => SIDES.map(side => [stick[side], { stick, side }] as const)),
      );
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
      const place = shaped.get(controlId);
      if (!place)
        return Math.max(
          onScreen.get(controlId) ?? 0,
          playedOn(controlId, () => true),
        );
      const { stick, side } = place;
      const axis = (of: (typeof SIDES)[number]) => playedOn(stick[of], isHalfAxis);
      const sides = shapeStick(axis("right") - axis("left"), axis("up") - axis("down"), stick);
      const others = playedOn(controlId, codes => !isHalfAxis(codes));
      return Math.max(onScreen.get(controlId) ?? 0, sides[side], others);
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

/** Modifier keys by the flag that every key event has for them. */
const MODIFIERS = {
  shiftKey: ["key:ShiftLeft", "key:ShiftRight"],
  ctrlKey: ["key:ControlLeft", "key:ControlRight"],
  altKey: ["key:AltLeft", "key:AltRight"],
  metaKey: ["key:MetaLeft", "key:MetaRight"],
} as const;

/**
 * Returns modifier keys that are held here although a key event reports them as up, because their keyup event
 * never came (the system used it for a shortcut). Excludes the event's own code, which is being reported.
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
