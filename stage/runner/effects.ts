import * as v from "valibot";
import type { CompiledEffect } from "../compileEffect";
import type { EffectKind } from "../kind";
import { duration, positive, share } from "../parts";

const EACH_SECOND = "tiles a second";

/** The effects of moves on the runner's body. Speeds in tiles per second, `step` in tiles. */
export const RUNNER_EFFECTS = {
  leap: {
    schema: v.strictObject({ leap: positive }),
    label: "leaps",
    hint: "leaves the ground at a speed of its own",
    begins: { leap: 19 },
    amount: { field: "leap", before: "at", after: EACH_SECOND, least: 0, most: 1000 },
    isThis: effect => typeof effect.leap === "number",
  },
  output: {
    schema: v.strictObject({ leap: v.literal("output") }),
    label: "leaps as charged",
    hint: "at the worth of the charge, in tiles a second",
    begins: { leap: "output" },
    isThis: effect => effect.leap === "output",
  },
  lift: {
    schema: v.strictObject({ lift: positive, for: duration }),
    label: "lifts",
    hint: "is pushed up for a while",
    begins: { lift: 40, for: "12f" },
    amount: { field: "lift", before: "by", after: "tiles/s²", least: 0, most: 1000 },
    lasts: "for",
    isThis: effect => "lift" in effect,
  },
  float: {
    schema: v.strictObject({ float: share, for: duration }),
    label: "floats",
    hint: "falls and rises more lightly for a while",
    begins: { float: 0.5, for: "30f" },
    amount: { field: "float", before: "at", after: "of its gravity", least: 0, most: 1 },
    lasts: "for",
    isThis: effect => "float" in effect,
  },
  run: {
    schema: v.strictObject({ run: positive }),
    label: "runs",
    hint: "faster, until the direction is let go",
    begins: { run: 10 },
    amount: { field: "run", before: "at", after: EACH_SECOND, least: 0, most: 1000 },
    isThis: effect => "run" in effect,
  },
  step: {
    schema: v.strictObject({ step: v.pipe(v.number(), v.minValue(-1000), v.maxValue(1000)) }),
    label: "steps",
    hint: "exactly so many tiles, to the left where negative; one asked for meanwhile is added",
    begins: { step: 1 },
    amount: { field: "step", before: "", after: "tiles" },
    isThis: effect => "step" in effect,
  },
  dash: {
    schema: v.strictObject({ dash: positive, for: duration }),
    label: "dashes",
    hint: "the way it faces, for a while",
    begins: { dash: 16, for: "8f" },
    amount: { field: "dash", before: "at", after: EACH_SECOND, least: 0, most: 1000 },
    lasts: "for",
    isThis: effect => "dash" in effect,
  },
  aim: {
    schema: v.strictObject({ aim: positive, for: duration }),
    label: "dashes as aimed",
    hint: "in the direction held, else the way it faces; without gravity, and from rest up or down at its end",
    begins: { aim: 16, for: "8f" },
    amount: { field: "aim", before: "at", after: EACH_SECOND, least: 0, most: 1000 },
    lasts: "for",
    isThis: effect => "aim" in effect,
  },
  plunge: {
    schema: v.strictObject({ plunge: positive }),
    label: "plunges",
    hint: "falls at a speed of its own, at once and until it lands",
    begins: { plunge: 26 },
    amount: { field: "plunge", before: "at", after: EACH_SECOND, least: 0, most: 1000 },
    isThis: effect => "plunge" in effect,
  },
  kick: {
    schema: v.strictObject({ kick: positive, up: positive, for: duration }),
    label: "kicks off",
    hint: "away from the wall it last touched, and up; no direction reaches it for a while",
    begins: { kick: 9, up: 17, for: "9f" },
    amount: { field: "kick", before: "at", after: "tiles a second away", least: 0, most: 1000 },
    more: { field: "up", before: "and", after: "up; no direction reaches it", least: 0, most: 1000 },
    lasts: "for",
    isThis: effect => "kick" in effect,
  },
  drop: {
    schema: v.strictObject({ drop: v.literal(true) }),
    label: "drops through",
    hint: "through the thin beam on which it stands",
    begins: { drop: true },
    isThis: effect => "drop" in effect,
  },
  stop: {
    schema: v.strictObject({ stop: v.literal(true) }),
    label: "stops",
    hint: "stands still in the air or on the ground; runs, steps and dashes end",
    begins: { stop: true },
    isThis: effect => "stop" in effect,
  },
} as const satisfies Readonly<Record<string, EffectKind>>;

/** The compiled effect of a move on the runner; its amount is 0 where a charge decides it. */
export type RunnerAct = CompiledEffect<keyof typeof RUNNER_EFFECTS>;
