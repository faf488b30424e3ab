import * as v from "valibot";
import type { EffectKind } from "./kind";
import { STAGE_KIND_NAMES, stageKind } from "./kinds";

/** What a kit's `stage` field can be: one form a kind. */
export const stageSchema = v.variant(
  "kind",
  STAGE_KIND_NAMES.map(name => stageKind(name).schema) as never as [
    v.StrictObjectSchema<{ kind: v.LiteralSchema<string, undefined> }, undefined>,
  ],
);

/** Every effect of every kind of stage, by its name. */
export const EFFECT_KINDS: ReadonlyMap<string, EffectKind> = new Map(
  STAGE_KIND_NAMES.flatMap(name => Object.entries(stageKind(name).effects)),
);

/** What a kit's moves can have as `effect`: one form an effect. */
export const effectSchema = v.union([...EFFECT_KINDS.values()].map(kind => kind.schema));

/** An effect as a kit writes it. */
export type Effect = Readonly<Record<string, unknown>>;
