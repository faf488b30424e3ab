import { compile, type InputColumns, type Issue, type Kit, type Program, type Result } from "#core";
import {
  checkStage,
  compileStage,
  createReplay,
  prepareKit,
  runStaged,
  stageOf,
  type Replay,
  type StagedRun,
  type StageProgram,
} from "#stage";

const stages = new WeakMap<Program, StageProgram>();
const kits = new WeakMap<Program, Kit>();

/** A kit with its stage, compiled: the stage is found again by its program. What is wrong with the stage is a fault like any other. */
export function compileStaged(kit: Kit): Result<Program> {
  const faults: Issue[] = checkStage(kit);
  const compiled = compile(prepareKit(kit));
  if (!compiled.ok) return { ok: false, issues: [...compiled.issues, ...faults] };
  if (faults.length > 0) return { ok: false, issues: faults };
  kits.set(compiled.value, kit);
  const stage = compileStage(kit, compiled.value);
  if (stage) stages.set(compiled.value, stage);
  return compiled;
}

/**
 * The kit that a program was compiled from. While the open kit has faults its last good program stays, and that one's
 * places lead into this kit, not into the open one.
 */
export function kitOfProgram(program: Program): Kit | undefined {
  return kits.get(program);
}

/** The stage that a program plays on, or undefined where its kit has none. */
export function stageOfProgram(program: Program): StageProgram | undefined {
  return stages.get(program);
}

/** Runs a take's columns through a program, on its stage where it has one. */
export function runOnStage(program: Program, columns: InputColumns): StagedRun {
  return runStaged(program, columns, stages.get(program));
}

/** Opens a take's columns to be looked into on any frame, on the program's stage where it has one. */
export function replayOnStage(program: Program, columns: InputColumns): Replay {
  return createReplay(program, columns, stages.get(program));
}

/** The gates that a kit's stage opens by itself. */
export function gatesOfStage(kit: Kit): ReadonlySet<string> {
  const stage = stageOf(kit);
  if (!stage || stage.kind === "ropes") return new Set();
  const zones = stage.kind === "runner" ? Object.values(stage.zones ?? {}) : [];
  return new Set([...Object.values(stage.gates), ...zones].filter(id => id !== undefined));
}
