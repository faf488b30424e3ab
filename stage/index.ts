export {
  JACK_STATES,
  TRACK_STRIDES,
  checkStage,
  compileStage,
  createStage,
  prepareKit,
  reportStage,
  runStaged,
  stageOf,
  stageSpeed,
  stepStage,
  writeTrack,
} from "./stage";
export type { StageProgram, StagedRun, StageState } from "./stage";
export { createReplay } from "./replay";
export type { Replay } from "./replay";
export { closedHeight, findJumpFacts } from "./jumpFacts";
export type { JumpFacts } from "./jumpFacts";
export { BODY_HEIGHT, HALF_WIDTH } from "./runner/runner";
export type { RunnerProgram, RunnerState } from "./runner/runner";
export type { DuelProgram, DuelState } from "./duel/duel";
export { parseLevel } from "./runner/level";
export type { Level } from "./runner/level";
export { effectSchema, stageSchema } from "./schema";
export type { DuelDocument, Effect, HeightBy, RopesDocument, RunnerDocument, StageDocument } from "./schema";
export { leapAtEdges, playRoutine } from "./scriptedHands";
export type { Routine } from "./scriptedHands";
