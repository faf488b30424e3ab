import { createTrace, type Kit, type Program, type State, type Take, type Trace } from "#core";
import { createStaging, trackStride, writeTrack, type Rules, type StageProgram } from "#stage";
import type { Desk } from "../../document/context";
import type { KeptArc } from "../../storage/records";
import type { Evaluated } from "../../judging/judge";
import type { Pad } from "../../input/pad";
import type { PageTape } from "../../tape/hand/context";

/** What is to be drawn of a stage on one frame: played right now, or replayed from the open take. */
export interface Scene {
  readonly kit: Kit;
  readonly program: Program;
  readonly stage: StageProgram;
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

const NO_ARCS: readonly KeptArc[] = [];

/** Where a scene is read from. */
export interface SceneSources {
  readonly desk: Desk;
  readonly pad: Pad;
  readonly tape: PageTape;
}

/** As many frames are stepped for one picture as leave it smooth. */
const MOST_STEPPED = 4000;

/** The open take under the variant laid over it, and the variant's name. */
export function readOther(
  { desk: { workbench, judge }, tape }: SceneSources,
  take: Take,
): { readonly name: string; readonly evaluated: Evaluated } | undefined {
  const { laidOver } = tape.look.getState();
  const variant = workbench.getState().variants.find(item => item.id === laidOver);
  const rules = variant && judge.rulesOf(variant.kit);
  return variant && rules ? { name: variant.name, evaluated: judge.evaluate(rules, take) } : undefined;
}

function sceneOf(sources: SceneSources, now: Evaluated): Scene | undefined {
  const { rules, program, columns, trace, track, take } = now;
  if (!rules.stage || columns.frames === 0) return undefined;
  const { judge, playback } = sources.desk;
  const frame = Math.min(playback.getState().frame, columns.frames - 1);
  const state = judge.seekerOf(now).stateAt(frame, MOST_STEPPED);
  const { inHand } = sources.pad.getState();
  const laidOver = readOther(sources, take);
  const other = laidOver && { name: laidOver.name, track: laidOver.evaluated.track };
  const keptArcs = sources.desk.workbench.getState().rows.arcs ?? NO_ARCS;
  return { kit: rules.kit, program, stage: rules.stage, frame, trace, track, state, other, keptArcs, inHand };
}

/** The stage as it stands before anything was played. */
function sceneAtRest(rules: Rules, inHand: Scene["inHand"]): Scene | undefined {
  const { kit, program, stage } = rules;
  if (!stage) return undefined;
  const { state, bodies } = createStaging(rules);
  const track = new Float32Array(trackStride(rules));
  if (bodies) writeTrack(bodies, track, 0);
  const trace = createTrace(program.rateHz, 1);
  return { kit, program, stage, frame: 0, trace, track, state, other: undefined, keptArcs: NO_ARCS, inHand };
}

/** The scene now, or undefined in a kit without a stage: played, replayed, or at rest where there is no take. */
export function readScene(sources: SceneSources): Scene | undefined {
  const { session, inHand } = sources.pad.getState();
  const { evaluated, rules: open } = sources.desk.evaluation.getState();
  if (!session) {
    const replayed = evaluated && sceneOf(sources, evaluated);
    return replayed ?? (open && sceneAtRest(open, inHand));
  }
  const { rules, program, state, trace, track } = session;
  if (!rules.stage) return undefined;
  const frame = Math.max(0, state.frame);
  return {
    kit: rules.kit,
    program,
    stage: rules.stage,
    frame,
    trace,
    track,
    state,
    other: undefined,
    keptArcs: sources.desk.workbench.getState().rows.arcs ?? NO_ARCS,
    inHand,
  };
}
