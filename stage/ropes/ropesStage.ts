import type { StageKind, StageRef } from "../kind";
import { easeOf, prepareRopes } from "./ropes";
import { ropesSchema, type RopesDocument } from "./schema";

/** The program of ropes. Ropes have no moving body; they change the prompts before the kit is compiled. */
export interface RopesProgram {
  readonly kind: "ropes";
}

const ROPES = { kind: "ropes" } as const;

function listed(what: StageRef["what"], ids: readonly string[] | undefined, field: string): StageRef[] {
  return (ids ?? []).map((id, k) => ({ what, id, path: [field, k] }));
}

/** The stage of prompts on ropes. */
export const ropesStage = {
  schema: ropesSchema,
  refs: ({ draws, pool, eases = [] }) => [
    ...listed("prompt", draws, "draws"),
    ...listed("pattern", pool, "pool"),
    ...eases.map(({ prompt }, k) => ({ what: "prompt" as const, id: prompt, path: ["eases", k, "prompt"] })),
  ],
  draws: ({ draws, pool }) => (pool?.length ? listed("prompt", draws, "draws") : []),
  gates: () => [],
  effects: {},
  easeOf,
  prepare: prepareRopes,
  compile: () => ROPES,
  create: () => ROPES,
  copy: ropes => ropes,
  report: () => undefined,
  act: () => undefined,
  step: () => undefined,
  trackStride: 0,
  writeTrack: () => undefined,
} satisfies StageKind<RopesDocument, RopesProgram, RopesProgram>;
