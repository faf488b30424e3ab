import type { Kit, Program, State, Trace } from "#core";
import type { Replay, StageProgram } from "#stage";
import { pad } from "../../input/pad";
import { compileFresh } from "../../judging/compileFresh";
import { playhead } from "../../document/playhead";
import { kitOfProgram, replayOnStage, stageOfProgram } from "../../judging/staged";
import { evaluateOnce, workbench, type Evaluated } from "../../document/workbench";
import { evaluatedNow } from "../../tape/hand/tapeActions";
import { tapeLook } from "../../tape/tapeLook";

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
  readonly inHand: "key" | "pad" | "mouse";
}

/** The track of the open take under the variant laid over it. */
function otherTrack(take: Parameters<typeof evaluateOnce>[1]): Scene["other"] {
  const variant = workbench.getState().variants.find(item => item.id === tapeLook.getState().laidOver);
  const program = variant && compileFresh(variant.kit);
  return variant && program ? { name: variant.name, track: evaluateOnce(program, take).track } : undefined;
}

/** As many frames are stepped for one picture as leave it smooth. */
const MOST_STEPPED = 4000;

const replays = new WeakMap<Evaluated, Replay>();

/** How the rules stood after a frame of the open take, or undefined while that is being come to. */
function stateInReplay(now: Evaluated, frame: number): State | undefined {
  let replay = replays.get(now);
  if (!replay) replays.set(now, (replay = replayOnStage(now.program, now.columns)));
  return replay.stateAt(frame, MOST_STEPPED);
}

/** The scene now, or undefined while there is nothing to show: no stage, or neither hands nor a take. */
export function readScene(): Scene | undefined {
  const { kit } = workbench.getState();
  const { session, inHand } = pad.getState();
  if (!kit) return undefined;
  if (session) {
    const { program, stageProgram, state, trace, track } = session;
    if (!stageProgram) return undefined;
    return {
      kit: kitOfProgram(program) ?? kit,
      program,
      stage: stageProgram,
      frame: Math.max(0, state.frame),
      trace,
      track,
      state,
      other: undefined,
      inHand,
    };
  }
  const now = evaluatedNow();
  const stage = now && stageOfProgram(now.program);
  if (!now || !stage || now.columns.frames === 0) return undefined;
  const { program, trace, track, take } = now;
  const frame = Math.min(playhead.getState().frame, now.columns.frames - 1);
  const state = stateInReplay(now, frame);
  const judgedBy = kitOfProgram(program) ?? kit;
  return { kit: judgedBy, program, stage, frame, trace, track, state, other: otherTrack(take), inHand };
}
