import { createStore } from "zustand/vanilla";
import type { Fate, Program, Trace } from "#core";
import type { RulePlace } from "../edits/ruleEdits";

/** What is being looked at on the tape, shared by its canvas, its dock and its cards. */
export interface TapeLook {
  /** The take all this is about; another one begins anew. */
  readonly takeId: string | undefined;
  /** The press whose fate is told, by control and frame. */
  readonly fate: Pick<Fate, "control" | "frame"> | undefined;
  /** The trace from before the last pull, that changes are marked against until the next edit. */
  readonly before: { readonly takeId: string; readonly trace: Trace; readonly program: Program } | undefined;
  /** The rule that is being shaped, if one is. */
  readonly about: RulePlace | undefined;
  readonly tool: "look" | "paint";
  /** A stretch of frames to measure, zoom to or loop; both ends included. */
  readonly stretch: { readonly from: number; readonly to: number } | undefined;
  readonly isLooping: boolean;
  /** The percent of full speed that painting on the speed lane gives. */
  readonly brushPercent: number;
  /** The variant whose trace lies over that of the present rules. */
  readonly laidOver: string | undefined;
  /** Are the other takes shown as strips? */
  readonly showsStrips: boolean;
  /** Speed of replay: 1 is the kit's own. */
  readonly speed: number;
}

export const tapeLook = createStore<TapeLook>(() => ({
  takeId: undefined,
  fate: undefined,
  before: undefined,
  about: undefined,
  tool: "look",
  stretch: undefined,
  isLooping: false,
  brushPercent: 50,
  laidOver: undefined,
  showsStrips: false,
  speed: 1,
}));

/** Speeds of replay, slowest first. */
export const SPEEDS = [0.125, 0.25, 0.5, 1, 2] as const;
