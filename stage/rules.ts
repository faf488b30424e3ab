import { compile, parseKitShape, type Kit, type Program, type Result } from "#core";
import { stageKind, type StageProgram } from "./kinds";
import { checkStage, effectsOf, stageOf } from "./stage";

/**
 * A compiled kit with its stage, as plain data that can be sent to a worker. Indices in `program` refer to
 * `kit`.
 */
export interface Rules {
  readonly kit: Kit;
  readonly program: Program;
  /** The program for takes in which the stage takes no part: the same, unless the stage changes the rules. */
  readonly unstaged: Program;
  readonly stage: StageProgram | undefined;
}

/**
 * Returns the kit to run: as written, except for the stage's changes to prompts. It still contains the stage.
 */
export function prepareKit(kit: Kit): Kit {
  const stage = stageOf(kit);
  return (stage && stageKind(stage.kind).prepare?.(kit, stage)) ?? kit;
}

/**
 * Compiles a kit with its stage. Problems of the stage are faults like any other. Returns the rules with
 * warnings, or every fault.
 */
export function compileRules(kit: Kit): Result<Rules> {
  const faults = checkStage(kit);
  const prepared = prepareKit(kit);
  const compiled = compile(prepared);
  if (!compiled.ok) return { ok: false, issues: [...compiled.issues, ...faults] };
  if (faults.length > 0) return { ok: false, issues: faults };
  const program = compiled.value;
  const bare = prepared === kit ? compiled : compile(kit);
  if (!bare.ok) return bare;
  const document = stageOf(kit);
  const effects = program.moves.map(move =>
    effectsOf(kit.moves?.find(item => item.id === move.id)).map(({ effect }) => effect),
  );
  const stage = document && stageKind(document.kind).compile(document, kit, program, effects);
  return { ok: true, value: { kit, program, unstaged: bare.value, stage }, warnings: compiled.warnings };
}

/**
 * Parses an unknown value as a kit and compiles it: shape, rules and stage are all checked, so that a parsed
 * kit can be run. Returns every fault; warnings come with the rules.
 */
export function parseRules(input: unknown): Result<Rules> {
  const shape = parseKitShape(input);
  return shape.ok ? compileRules(shape.value) : shape;
}
