import type * as v from "valibot";
import { duelStage } from "./duel/duelStage";
import type { StageKind } from "./kind";
import { ropesStage } from "./ropes/ropesStage";
import { runnerStage } from "./runner/runnerStage";

/** Every kind of stage: one folder and one line each. */
const STAGE_KINDS = { runner: runnerStage, duel: duelStage, ropes: ropesStage } as const;

type Kinds = typeof STAGE_KINDS;
export type StageKindName = keyof Kinds;

/** The values of a kit's `stage` field. */
export type StageDocument = v.InferOutput<Kinds[StageKindName]["schema"]>;
/** A compiled stage, as plain data that can be sent to a worker. */
export type StageProgram = ReturnType<Kinds[StageKindName]["compile"]>;
/** The bodies of a stage after a frame. */
export type StageState = ReturnType<Kinds[StageKindName]["create"]>;

/** The names of all kinds, in the order in which they are offered. */
export const STAGE_KIND_NAMES = Object.keys(STAGE_KINDS) as readonly StageKindName[];

/** Returns the record of a kind. The caller must pass document, program and bodies of that same kind. */
export function stageKind(name: StageKindName): StageKind<StageDocument, StageProgram, StageState> {
  return STAGE_KINDS[name] as unknown as StageKind<StageDocument, StageProgram, StageState>;
}
