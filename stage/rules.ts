import { compile, parseKitShape, type Kit, type Program, type Result } from "#core";
import { stageKind, type StageProgram } from "./kinds";
import { checkStage, effectOf, stageOf } from "./stage";

/** A kit made ready to run, with its stage. Plain data: it can be sent to a worker. Places in `program` lead into `kit`. */
export interface Rules {
  readonly kit: Kit;
  readonly program: Program;
  readonly stage: StageProgram | undefined;
}

/** The kit whose rules are run: as written, but for what the stage itself decides about prompts. The stage is still in it. */
export function prepareKit(kit: Kit): Kit {
  const stage = stageOf(kit);
  return (stage && stageKind(stage.kind).prepare?.(kit, stage)) ?? kit;
}

/**
 * A kit compiled with its stage, once, before it is run; what is wrong with the stage is a fault like any other. Gives
 * the rules with warnings, or every fault found.
 */
export function compileRules(kit: Kit): Result<Rules> {
  const faults = checkStage(kit);
  const compiled = compile(prepareKit(kit));
  if (!compiled.ok) return { ok: false, issues: [...compiled.issues, ...faults] };
  if (faults.length > 0) return { ok: false, issues: faults };
  const program = compiled.value;
  const document = stageOf(kit);
  const effects = program.moves.map(move => effectOf(kit.moves?.find(item => item.id === move.id)));
  const stage = document && stageKind(document.kind).compile(document, kit, program, effects);
  return { ok: true, value: { kit, program, stage }, warnings: compiled.warnings };
}

/**
 * Reads an unknown value as a kit and makes it ready to run: shape, rules and stage are checked by one door, so that what
 * is read can be run. Every fault is listed; warnings come with the rules.
 */
export function parseRules(input: unknown): Result<Rules> {
  const shape = parseKitShape(input);
  return shape.ok ? compileRules(shape.value) : shape;
}
