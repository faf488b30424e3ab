import { createTrace, type Kit, type Program, type State, type Trace } from "#core";
import { createStaging, trackStride, writeTrack, type Rules, type StageProgram } from "#stage";
import type { LiveSession } from "../input/liveSession";
import type { KeptArc } from "../storage/records";

/** The contents of one frame, with or without a stage, live or replayed from a take. */
export interface Shown {
  readonly kit: Kit;
  readonly program: Program;
  readonly frame: number;
  readonly trace: Trace;
  readonly track: ArrayLike<number>;
  /**
   * The state of the rules, for meters and prompts; undefined while a distant frame of a replay is being
   * computed.
   */
  readonly state: State | undefined;
  /** The same take under the variant shown for comparison. */
  readonly other: { readonly name: string; readonly track: ArrayLike<number> } | undefined;
  /** Arcs kept for comparison. */
  readonly keptArcs: readonly KeptArc[];
  readonly inHand: "key" | "pad" | "mouse";
}

/** The contents of one frame of a stage. */
export interface Scene extends Shown {
  readonly stage: StageProgram;
}

/** No kept arcs. */
export const NO_ARCS: readonly KeptArc[] = [];

/** Returns the contents of a kit before anything was played. */
export function shownAtRest(rules: Rules, inHand: Shown["inHand"]): Shown {
  const { kit, program } = rules;
  const { state, bodies } = createStaging(rules);
  const track = new Float32Array(bodies ? trackStride(rules) : 0);
  if (bodies) writeTrack(bodies, track, 0);
  const trace = createTrace(program.rateHz, 1);
  return { kit, program, frame: 0, trace, track, state, other: undefined, keptArcs: NO_ARCS, inHand };
}

/** Returns the current contents of a live session. */
export function shownOfSession(
  { rules, program, state, trace, track }: LiveSession,
  inHand: Shown["inHand"],
  keptArcs: readonly KeptArc[] = NO_ARCS,
): Shown {
  const frame = Math.max(0, state.frame);
  return { kit: rules.kit, program, frame, trace, track, state, other: undefined, keptArcs, inHand };
}

/** Returns the contents together with the stage; undefined in a kit without one. */
export function onStage({ stage }: Rules, shown: Shown): Scene | undefined {
  return stage && { ...shown, stage };
}
