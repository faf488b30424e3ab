import * as v from "valibot";
import type { Issue, Kit, PathStep } from "#core";
import type { BodyUse, StageRef } from "./kind";
import { stageKind, type StageDocument } from "./kinds";
import { effectSchema, EFFECT_KINDS, stageSchema, type Effect } from "./schema";

function issue(path: readonly (string | number)[], found: unknown, wanted: string): Issue {
  const written = JSON.stringify(found) ?? "nothing";
  const facts = { found: written.length > 60 ? `${written.slice(0, 57)}…` : written, wanted };
  return { code: "stage", severity: "fault", path, facts };
}

const documents = new WeakMap<object, StageDocument | null>();

/**
 * Returns a kit's parsed stage document, or undefined if it has none or it is invalid (checkStage reports
 * why). Cached for each version of the stage, since screens call it at every change of any rule.
 */
export function stageOf({ stage }: Kit): StageDocument | undefined {
  if (typeof stage !== "object" || stage === null) return undefined;
  let document = documents.get(stage);
  if (document === undefined) {
    const parsed = v.safeParse(stageSchema, stage);
    document = parsed.success ? (parsed.output as StageDocument) : null;
    documents.set(stage, document);
  }
  return document ?? undefined;
}

/** Returns every part of a kit that its stage names; paths are relative to the stage. */
export function listStageRefs(kit: Kit): readonly StageRef[] {
  const stage = stageOf(kit);
  return stage ? stageKind(stage.kind).refs(stage) : [];
}

/** Returns an issue for each id that a stage names and the kit lacks. */
function findStrangers(kit: Kit, stage: StageDocument): Issue[] {
  const lists = { control: kit.controls, gate: kit.gates, pattern: kit.patterns, prompt: kit.prompts };
  return stageKind(stage.kind)
    .refs(stage)
    .flatMap(({ what, id, path }): Issue[] => {
      const list = lists[what] ?? [];
      if (list.some(item => item.id === id)) return [];
      const hint = list.length > 0 ? `write one of ${list.map(item => item.id).join(", ")}` : "add it first";
      const facts = { what, id, hint };
      return [{ code: "unknown-id", severity: "fault", path: ["stage", ...path], facts }];
    });
}

/** Returns an issue for each prompt that draws its own answer and for which the stage would draw another. */
function findDoubleDraws(kit: Kit, stage: StageDocument): Issue[] {
  const drawn = new Set(kit.prompts?.flatMap(({ id, draw }) => (draw === undefined ? [] : [id])));
  const refs = stageKind(stage.kind).draws?.(stage) ?? [];
  return refs
    .filter(({ id }) => drawn.has(id))
    .map(({ id, path }) => ({
      code: "stage-draws",
      severity: "fault",
      path: ["stage", ...path],
      facts: { id },
    }));
}

/** Returns the issues of a kit's stage and its moves' effects, with their paths. Empty without a stage. */
export function checkStage(kit: Kit): Issue[] {
  const issues: Issue[] = [];
  if (kit.stage !== undefined) {
    const parsed = v.safeParse(stageSchema, kit.stage);
    for (const found of parsed.success ? [] : parsed.issues) {
      const path = (found.path ?? []).map(item => item.key as PathStep);
      const wanted = found.expected ?? "a stage of runner, duel or ropes";
      issues.push(issue(["stage", ...path], found.input, wanted));
    }
  }
  const stage = stageOf(kit);
  if (stage) issues.push(...findStrangers(kit, stage), ...findDoubleDraws(kit, stage));
  (kit.moves ?? []).forEach((move, m) => {
    if (move.effect === undefined || effectsOf(move).length > 0) return;
    const names = [...new Set([...EFFECT_KINDS.values()].map(kind => Object.keys(kind.begins)[0]))];
    const wanted = `${names.slice(0, -1).join(", ")} or ${names.at(-1)}, with its number`;
    issues.push(issue(["moves", m, "effect"], move.effect, wanted));
  });
  return issues;
}

/** An effect of a move, with its path in the move. */
export interface WrittenEffect {
  readonly effect: Effect;
  readonly path: readonly ["effect"] | readonly ["effect", number];
}

/** Returns the effects of a move in their order; none if it has none or they are invalid. */
export function effectsOf(move: { readonly effect?: unknown } | undefined): readonly WrittenEffect[] {
  const parsed = v.safeParse(effectSchema, move?.effect);
  if (!parsed.success) return [];
  return Array.isArray(parsed.output)
    ? (parsed.output as Effect[]).map((effect, k) => ({ effect, path: ["effect", k] }))
    : [{ effect: parsed.output as Effect, path: ["effect"] }];
}

/** Returns every number of a move's effects that is no length: its field, and its path in the move. */
export function listEffectFigures(
  move: { readonly effect?: unknown } | undefined,
): { readonly field: string; readonly value: number; readonly path: readonly PathStep[] }[] {
  return effectsOf(move).flatMap(({ effect, path }) =>
    Object.entries(effect).flatMap(([field, value]) =>
      typeof value === "number" ? [{ field, value, path: [...path, field] }] : [],
    ),
  );
}

/** Returns the factor by which a kit's stage stretches a prompt's window and grades. */
export function promptEase(kit: Kit, promptId: string): number {
  const stage = stageOf(kit);
  return (stage && stageKind(stage.kind).easeOf?.(stage, promptId)) ?? 1;
}

/** Returns the control that runs through a kit's stage and the gate of its ground; undefined without one. */
export function courseOf(
  kit: Kit,
): { readonly control: string; readonly ground: string | undefined } | undefined {
  const stage = stageOf(kit);
  return stage && stageKind(stage.kind).course?.(stage);
}

/** Returns how a body of a kit's stage uses a control directly; undefined if it does not. */
export function bodyUseOf(kit: Kit, controlId: string): BodyUse | undefined {
  const stage = stageOf(kit);
  return stage && stageKind(stage.kind).usesControl?.(stage, controlId);
}

/** Returns the gates that a kit's stage opens. */
export function gatesOfStage(kit: Kit): ReadonlySet<string> {
  const stage = stageOf(kit);
  const ids: readonly (string | undefined)[] = stage ? stageKind(stage.kind).gates(stage) : [];
  return new Set(ids.filter(id => id !== undefined));
}
