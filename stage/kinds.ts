import type * as v from "valibot";
import { duelStage } from "./duel/duelStage";
import type { StageKind } from "./kind";
import { ropesStage } from "./ropes/ropesStage";
import { runnerStage } from "./runner/runnerStage";

/** Every kind of stage: one folder and one line. */
const STAGE_KINDS = { runner: runnerStage, duel: duelStage, ropes: ropesStage } as const;

type Kinds = typeof STAGE_KINDS;
export type StageKindName = keyof Kinds;

/** What a kit's `stage` field can be. */
export type StageDocument = v.InferOutput<Kinds[StageKindName]["schema"]>;
/** A stage ready to run. Plain data: it can be sent to a worker. */
export type StageProgram = ReturnType<Kinds[StageKindName]["compile"]>;
/** The bodies of a stage as they stand after a frame. */
export type StageState = ReturnType<Kinds[StageKindName]["create"]>;

/** The names of all kinds, in the order in which they are offered. */
export const STAGE_KIND_NAMES = Object.keys(STAGE_KINDS) as readonly StageKindName[];

/** All there is to say of a kind; that document, program and bodies are of the same kind is what its callers hold to. */
export function stageKind(name: StageKindName): StageKind<StageDocument, StageProgram, StageState> {
  return STAGE_KINDS[name] as unknown as StageKind<StageDocument, StageProgram, StageState>;
}
