import { evaluateEasing, parseEasing, type Kit } from "#core";
import { effectsOf, type RunnerDocument, type WrittenEffect } from "#stage";

/** The three presses shown, with their default lengths in seconds. */
export const PRESSES = [
  { name: "tap", seconds: 0.05 },
  { name: "half", seconds: 0.15 },
  { name: "full", seconds: 1 },
] as const;
/** A move that leaps: with a speed of its own, or with the output of a charge. */
export interface Leap {
  readonly control: string;
  /**
   * The three presses shown, each with its launch speed, and the seconds its control is held after the
   * launch.
   */
  readonly presses: readonly { readonly name: string; readonly speed: number; readonly seconds: number }[];
  /** The numbers of its speed, with their paths and names. */
  readonly numbers: readonly {
    readonly label: string;
    readonly value: number;
    readonly path: readonly (string | number)[];
  }[];
}

/** Returns the leap among the effects of a move: one of a speed of its own ("number"), or of a charge's output ("string"). */
function leapOf(move: NonNullable<Kit["moves"]>[number], by: "number" | "string"): WrittenEffect | undefined {
  return effectsOf(move).find(({ effect }) => typeof effect.leap === by);
}

/** Returns the first move that leaps at a fixed speed. */
export function fixedLeap(kit: Kit): Leap | undefined {
  const index = (kit.moves ?? []).findIndex(move => !move.off && leapOf(move, "number"));
  if (index < 0) return undefined;
  const move = kit.moves![index]!;
  const { effect, path } = leapOf(move, "number")!;
  const pattern = kit.patterns.find(item => item.id === move.pattern);
  const speed = effect.leap as number;
  return {
    control: pattern && "control" in pattern ? pattern.control : (kit.controls[0]?.id ?? ""),
    presses: PRESSES.map(press => ({ ...press, speed })),
    numbers: [{ label: "launch speed", value: speed, path: ["moves", index, ...path, "leap"] }],
  };
}

/** The shares of a charge shown. */
const CHARGES = [
  { name: "least", share: 0 },
  { name: "half", share: 0.5 },
  { name: "full", share: 1 },
] as const;

/** Returns the first move that leaps with the output of a charge. */
export function chargedLeap(kit: Kit): Leap | undefined {
  for (const move of kit.moves ?? []) {
    const index = kit.patterns.findIndex(item => item.id === move.pattern);
    const pattern = kit.patterns[index];
    if (move.off || !leapOf(move, "string") || !pattern || !("curve" in pattern || "full" in pattern))
      continue;
    const [low, high] = pattern.output ?? [0, 1];
    const easing = parseEasing(pattern.curve ?? "linear");
    const worth = (share: number) =>
      low + (high - low) * (easing.ok ? evaluateEasing(easing.value, share) : share);
    return {
      control: pattern.control,
      presses: CHARGES.map(({ name, share }) => ({ name, speed: Math.max(0, worth(share)), seconds: 0 })),
      numbers: pattern.output
        ? [
            { label: "least launch speed", value: low, path: ["patterns", index, "output", 0] },
            { label: "full launch speed", value: high, path: ["patterns", index, "output", 1] },
          ]
        : [],
    };
  }
  return undefined;
}

/** Returns the default settings of a way in which a jump's height varies. */
export function heightBy(by: string, control: string): RunnerDocument["height"] {
  switch (by) {
    case "lift":
      return { by, control, for: "12f" };
    case "float":
      return { by, control, share: 0.5 };
    case "cut":
      return { by, control, to: 0.45 };
    default:
      return { by: by === "charged" ? "charged" : "fixed" };
  }
}
