import * as v from "valibot";
import {
  createInputCursor,
  createState,
  createTrace,
  loadInput,
  notes,
  run,
  step,
  type InputColumns,
  type Issue,
  type Kit,
  type Program,
  type State,
  type Trace,
} from "#core";
import {
  actOnDuel,
  compileDuel,
  createDuel,
  reportDuel,
  stepDuel,
  type DuelProgram,
  type DuelState,
} from "./duel/duel";
import { prepareRopes } from "./ropes";
import {
  actOnRunner,
  compileRunner,
  createRunner,
  reportRunner,
  stepRunner,
  type RunnerProgram,
  type RunnerState,
} from "./runner/runner";
import { effectSchema, stageSchema, type Effect, type StageDocument } from "./schema";

export interface RopesProgram {
  readonly kind: "ropes";
}

/** A stage ready to run. Plain data: it can be sent to a worker. */
export type StageProgram = RunnerProgram | DuelProgram | RopesProgram;

/** The bodies of a stage as they stand after a frame. */
export type StageState =
  | { readonly kind: "runner"; readonly body: RunnerState }
  | { readonly kind: "duel"; readonly duel: DuelState }
  | { readonly kind: "ropes" };

function issue(path: readonly (string | number)[], found: unknown, wanted: string): Issue {
  const written = JSON.stringify(found) ?? "nothing";
  const facts = { found: written.length > 60 ? `${written.slice(0, 57)}…` : written, wanted };
  return { code: "stage", severity: "fault", path, facts };
}

const documents = new WeakMap<object, StageDocument | null>();

/**
 * A kit's stage document, or undefined when it has none or it does not read (checkStage says why). Read once for each
 * version of the stage, since screens ask for it at every change of any rule.
 */
export function stageOf({ stage }: Kit): StageDocument | undefined {
  if (typeof stage !== "object" || stage === null) return undefined;
  let document = documents.get(stage);
  if (document === undefined) {
    const parsed = v.safeParse(stageSchema, stage);
    document = parsed.success ? parsed.output : null;
    documents.set(stage, document);
  }
  return document ?? undefined;
}

/** Ids that a stage names and its kit does not have, each with its path. */
function findStrangers(kit: Kit, stage: StageDocument): Issue[] {
  const issues: Issue[] = [];
  const has = (list: readonly { readonly id: string }[] | undefined, id: string) =>
    list?.some(item => item.id === id) ?? false;
  const need = (
    what: "control" | "gate" | "pattern" | "prompt",
    id: string | undefined,
    path: readonly (string | number)[],
  ) => {
    const list = { control: kit.controls, gate: kit.gates, pattern: kit.patterns, prompt: kit.prompts }[what];
    if (id === undefined || has(list, id)) return;
    const hint =
      (list ?? []).length > 0 ? `write one of ${list!.map(item => item.id).join(", ")}` : `add it first`;
    issues.push({
      code: "unknown-id",
      severity: "fault",
      path: ["stage", ...path],
      facts: { what, id, hint },
    });
  };
  if (stage.kind === "runner") {
    need("control", stage.run.left, ["run", "left"]);
    need("control", stage.run.right, ["run", "right"]);
    if ("control" in stage.height) need("control", stage.height.control, ["height", "control"]);
    for (const [letter, id] of Object.entries(stage.zones ?? {})) need("gate", id, ["zones", letter]);
  }
  if (stage.kind !== "ropes")
    for (const [name, id] of Object.entries(stage.gates)) need("gate", id, ["gates", name]);
  else {
    (stage.draws ?? []).forEach((id, k) => need("prompt", id, ["draws", k]));
    (stage.pool ?? []).forEach((id, k) => need("pattern", id, ["pool", k]));
  }
  return issues;
}

/** What is wrong with a kit's stage and its moves' effects: each with its path. Empty when there is nothing, or no stage. */
export function checkStage(kit: Kit): Issue[] {
  const issues: Issue[] = [];
  if (kit.stage !== undefined) {
    const parsed = v.safeParse(stageSchema, kit.stage);
    for (const found of parsed.success ? [] : parsed.issues) {
      const path = (found.path ?? []).map(item => item.key as string | number);
      issues.push(
        issue(["stage", ...path], found.input, found.expected ?? "a stage of runner, duel or ropes"),
      );
    }
  }
  const stage = stageOf(kit);
  if (stage) issues.push(...findStrangers(kit, stage));
  (kit.moves ?? []).forEach((move, m) => {
    if (move.effect === undefined || v.safeParse(effectSchema, move.effect).success) return;
    const wanted = "leap, lift, float, run, step, dash, strike or parry, with its number";
    issues.push(issue(["moves", m, "effect"], move.effect, wanted));
  });
  return issues;
}

/** The kit whose rules are run: as written, but for what the stage itself decides about prompts. */
export function prepareKit(kit: Kit): Kit {
  const stage = stageOf(kit);
  return stage?.kind === "ropes" ? prepareRopes(kit, stage) : kit;
}

/** The stage of a kit for its compiled program, or undefined where it has none that reads. */
export function compileStage(kit: Kit, program: Program): StageProgram | undefined {
  const document = stageOf(kit);
  if (!document) return undefined;
  const effects = program.moves.map((move): Effect | undefined => {
    const parsed = v.safeParse(effectSchema, kit.moves?.find(item => item.id === move.id)?.effect);
    return parsed.success ? parsed.output : undefined;
  });
  switch (document.kind) {
    case "runner":
      return compileRunner(document, kit, program, effects);
    case "duel":
      return compileDuel(document, kit, program, effects);
    case "ropes":
      return { kind: "ropes" };
  }
}

/** The bodies before frame 0. Call reportStage once before the first step, so that frame 0 finds their gates. */
export function createStage(program: StageProgram): StageState {
  switch (program.kind) {
    case "runner":
      return { kind: "runner", body: createRunner(program) };
    case "duel":
      return { kind: "duel", duel: createDuel() };
    case "ropes":
      return { kind: "ropes" };
  }
}

/** A copy of the bodies that can be gone back to. */
export function copyStage(stage: StageState): StageState {
  switch (stage.kind) {
    case "runner":
      return { kind: "runner", body: { ...stage.body } };
    case "duel":
      return { kind: "duel", duel: { ...stage.duel } };
    case "ropes":
      return stage;
  }
}

/** Tells the core which gates the bodies hold open, from the next frame on. */
export function reportStage(program: StageProgram, stage: StageState, state: State): void {
  if (program.kind === "runner" && stage.kind === "runner") reportRunner(program, stage.body, state);
  else if (program.kind === "duel" && stage.kind === "duel") reportDuel(program, stage.duel, state);
}

/** The speed of the game clock on the coming frame: the take's, or none while the stage stands still at a hit. Percent. */
export function stageSpeed(stage: StageState, speedPercent: number): number {
  return stage.kind === "duel" && stage.duel.stopLeft > 0 ? 0 : speedPercent;
}

/** What a pattern's last fire was worth: the value of a charge, 0 for the rest. */
function outputOf(rules: Program, state: State, move: number): number {
  const { pattern } = rules.moves[move]!;
  return rules.patterns[pattern]!.kind === "charge" ? state.carried[pattern * 4 + 3]! : 0;
}

/**
 * Moves the bodies by one frame, after the core has stepped it: acts on them with every move performed on this frame,
 * lets them move, and reports their gates for the next. `since` is how many notes the trace had before the step.
 */
export function stepStage(
  program: StageProgram,
  stage: StageState,
  rules: Program,
  state: State,
  trace: Trace,
  since: number,
): void {
  for (let i = since; i < trace.count; i++) {
    if (trace.kind[i] !== notes.PERFORMED) continue;
    const move = trace.subject[i]!;
    if (program.kind === "runner" && stage.kind === "runner")
      actOnRunner(program, stage.body, move, outputOf(rules, state, move), rules.rateHz);
    else if (program.kind === "duel" && stage.kind === "duel") actOnDuel(program, stage.duel, move);
  }
  if (program.kind === "runner" && stage.kind === "runner")
    stepRunner(program, stage.body, state, rules.rateHz, state.speedPercent);
  else if (program.kind === "duel" && stage.kind === "duel")
    stepDuel(program, stage.duel, state.speedPercent);
  reportStage(program, stage, state);
}

/** How many numbers a track has for each frame: a runner's x and y in tiles; a duel's clockwork (its place in JACK_STATES), blow under way, and counts. */
export const TRACK_STRIDES = { runner: 2, duel: 7, ropes: 0 } as const;

/** What the clockwork does, by the number a track has for it. */
export const JACK_STATES = ["waits", "startup", "active", "recovery", "guard", "away", "reels"] as const;

/** Writes how the bodies stand into a track, from a place on. Gives how many numbers that took. */
export function writeTrack(stage: StageState, track: { [place: number]: number }, at: number): number {
  if (stage.kind === "runner") {
    track[at] = stage.body.x;
    track[at + 1] = stage.body.y;
  } else if (stage.kind === "duel") {
    const { duel } = stage;
    track[at] = JACK_STATES.indexOf(duel.jack);
    track[at + 1] = duel.blow;
    track[at + 2] = duel.hits;
    track[at + 3] = duel.taken;
    track[at + 4] = duel.parries;
    track[at + 5] = duel.whiffs;
    track[at + 6] = (duel.stunLeft > 0 ? 1 : 0) + (duel.parryLeft > 0 ? 2 : 0) + (duel.stopLeft > 0 ? 4 : 0);
  }
  return TRACK_STRIDES[stage.kind];
}

/** What a run on a stage gives: the trace, and how the bodies stood after each frame (TRACK_STRIDES numbers each). */
export interface StagedRun {
  readonly trace: Trace;
  readonly track: Float32Array;
}

/** Runs a take's columns through rules and stage: the same steps as live play. Without a stage it is the core's own run. */
export function runStaged(
  rules: Program,
  columns: InputColumns,
  program: StageProgram | undefined,
): StagedRun {
  if (!program || program.kind === "ropes") return { trace: run(rules, columns), track: new Float32Array(0) };
  const state = createState(rules);
  const trace = createTrace(rules.rateHz, 1024);
  const cursor = createInputCursor(rules, columns);
  const stage = createStage(program);
  const stride = TRACK_STRIDES[stage.kind];
  const track = new Float32Array(columns.frames * stride);
  reportStage(program, stage, state);
  for (let frame = 0; frame < columns.frames; frame++) {
    const since = trace.count;
    const input = loadInput(cursor, frame);
    const takeSpeed = input.speedPercent;
    input.speedPercent = stageSpeed(stage, takeSpeed);
    step(rules, state, input, trace);
    input.speedPercent = takeSpeed;
    stepStage(program, stage, rules, state, trace, since);
    writeTrack(stage, track, frame * stride);
  }
  trace.frames = columns.frames;
  return { trace, track };
}
