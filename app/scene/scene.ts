import { createTrace, type Kit, type Program, type State, type Trace } from "#core";
import { createStaging, trackStride, writeTrack, type Rules, type StageProgram } from "#stage";
import type { LiveSession } from "../input/liveSession";
import type { KeptArc } from "../storage/records";

/** What is to be drawn on one frame, whatever the stage or without one: played right now, or replayed from a take. */
export interface Shown {
  readonly kit: Kit;
  readonly program: Program;
  readonly frame: number;
  readonly trace: Trace;
  readonly track: ArrayLike<number>;
  /** How the rules stand, for meters and prompts; undefined while a far frame of a replay is still being come to. */
  readonly state: State | undefined;
  /** The same take under the variant that is laid over it. */
  readonly other: { readonly name: string; readonly track: ArrayLike<number> } | undefined;
  /** Arcs that were kept to be compared. */
  readonly keptArcs: readonly KeptArc[];
  readonly inHand: "key" | "pad" | "mouse";
}

/** What is to be drawn of a stage. */
export interface Scene extends Shown {
  readonly stage: StageProgram;
}

/** No arcs kept. */
export const NO_ARCS: readonly KeptArc[] = [];

/** A kit as it stands before anything was played. */
export function shownAtRest(rules: Rules, inHand: Shown["inHand"]): Shown {
  const { kit, program } = rules;
  const { state, bodies } = createStaging(rules);
  const track = new Float32Array(bodies ? trackStride(rules) : 0);
  if (bodies) writeTrack(bodies, track, 0);
  const trace = createTrace(program.rateHz, 1);
  return { kit, program, frame: 0, trace, track, state, other: undefined, keptArcs: NO_ARCS, inHand };
}

/** What is being played, as it stands. */
export function shownOfSession(
  { rules, program, state, trace, track }: LiveSession,
  inHand: Shown["inHand"],
  keptArcs: readonly KeptArc[] = NO_ARCS,
): Shown {
  const frame = Math.max(0, state.frame);
  return { kit: rules.kit, program, frame, trace, track, state, other: undefined, keptArcs, inHand };
}

/** What is shown with the stage it is shown on; undefined in a kit without one. */
export function onStage({ stage }: Rules, shown: Shown): Scene | undefined {
  return stage && { ...shown, stage };
}
