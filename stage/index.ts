export { STAGE_KIND_NAMES, stageKind } from "./kinds";
export type { StageDocument, StageKindName, StageProgram, StageState } from "./kinds";
export type { EffectAmount, EffectKind, StageKind } from "./kind";
export { compileRules, parseRules, prepareKit } from "./rules";
export type { Rules } from "./rules";
export {
  bodyUseOf,
  checkStage,
  courseOf,
  effectsOf,
  gatesOfStage,
  listEffectFigures,
  listStageRefs,
  promptEase,
  stageOf,
  type WrittenEffect,
} from "./stage";
export {
  beginRun,
  copyStaging,
  createStaging,
  runRules,
  stepStaging,
  trackStride,
  writeTrack,
} from "./staging";
export type { StagedCourse, StagedRun, Staging } from "./staging";
export {
  canCarry,
  carryBodies,
  copyBodies,
  createReplay,
  listStageGates,
  noteReports,
  type GateReports,
} from "./succession";
export { createSeeker } from "./seeker";
export type { Seeker } from "./seeker";
export { framesToTop, launchForHeight, launchForTop, type Follows, type Launch } from "./findLaunch";
export { closedHeight, findJumpFacts, MAX_AIR_FRAMES } from "./jumpFacts";
export type { JumpFacts } from "./jumpFacts";
export { BODY_HEIGHT, HALF_WIDTH, type RunnerState } from "./runner/body";
export type { RunnerProgram } from "./runner/runnerProgram";
export { findLeaps, measureArc, type Arc } from "./runner/arcs";
export type { RunnerDocument } from "./runner/schema";
export { JACK_STATES } from "./duel/duel";
export type { DuelProgram, DuelState } from "./duel/duel";
export { DUEL_DEFAULTS } from "./duel/schema";
export { MAX_APART } from "./parts";
export type { DuelDocument } from "./duel/schema";
export type { RopesDocument } from "./ropes/schema";
export { parseLevel, SOLID, THIN } from "./runner/level";
export type { Level } from "./runner/level";
export { effectSchema, MAX_EFFECTS, stageSchema } from "./schema";
export type { Effect } from "./schema";
export { leapAtEdges } from "./runner/leapAtEdges";
export { handOf, playRoutine, type HandLine, type Routine } from "./scriptedPlayer";
export { listStageLengths } from "./lengths";
export { findAdvantage, formatAdvantage, type Advantage } from "./duel/advantage";
export { easeOf, listDrawn } from "./ropes/ropes";
export { compileTakeJudge, prepareStudied, type TakeJudge, type TakeVerdict } from "./checking";
export { createBranching } from "./branching";
export {
  BLOW_WORDS,
  BLOWS,
  findCancels,
  formatRanges,
  MAX_MOVES_TRIED,
  type Blow,
  type Cancels,
  type FrameRange,
} from "./duel/cancels";
export { createTrials, duelOf, type Trials } from "./duel/blows";
export { clockOf, isOverBeam, placeBeam } from "./runner/beams";
