import * as v from "valibot";
import type { EffectKind } from "./kind";
import { STAGE_KIND_NAMES, stageKind } from "./kinds";

/** The values of a kit's `stage` field: one form per kind. */
export const stageSchema = v.variant(
  "kind",
  STAGE_KIND_NAMES.map(name => stageKind(name).schema) as never as [
    v.StrictObjectSchema<{ kind: v.LiteralSchema<string, undefined> }, undefined>,
  ],
);

/** Every effect of every kind of stage, by name. */
export const EFFECT_KINDS: ReadonlyMap<string, EffectKind> = new Map(
  STAGE_KIND_NAMES.flatMap(name => Object.entries(stageKind(name).effects)),
);

/** The most effects of one move. */
export const MAX_EFFECTS = 4;

const forms = [...EFFECT_KINDS.values()].map(kind => kind.schema);

/** The values of a move's `effect`: one form per effect, or a list of several, which begin together in its order. */
export const effectSchema = v.union([
  ...forms,
  v.pipe(v.array(v.union(forms)), v.minLength(1), v.maxLength(MAX_EFFECTS)),
]);

/** An effect as written in a kit. */
export type Effect = Readonly<Record<string, unknown>>;
