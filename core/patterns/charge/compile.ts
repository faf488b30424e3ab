import { parseEasing, type Easing } from "../../curve/easing";
import { fault, type PathStep } from "../../formats/issue";
import type { Names } from "../../kit/compileNames";
import type { PatternOf } from "../../kit/schema";
import { NEVER } from "../../program/program";
import type { LevelProgram } from "./program";
import { TICKS } from "../../time/clock";
import { compileControls, type CompileKind } from "../compileParts";
import type { ChargeProgram } from "./program";

function compileLevels(
  pattern: PatternOf<"charge">,
  names: Names,
  path: readonly PathStep[],
): LevelProgram[] {
  const levels = (pattern.levels ?? []).map(level => ({
    name: level.name,
    atTicks: names.atLeast(level.at, 0),
  }));
  for (let k = 1; k < levels.length; k++) {
    if (levels[k]!.atTicks >= levels[k - 1]!.atTicks) continue;
    const facts = {
      name: levels[k]!.name,
      at: levels[k]!.atTicks / TICKS,
      before: levels[k - 1]!.atTicks / TICKS,
    };
    names.issues.push(fault("levels-order", [...path, "levels", k, "at"], facts));
  }
  return levels;
}

function compileCurve(pattern: PatternOf<"charge">, names: Names, path: readonly PathStep[]): Easing {
  const parsed = parseEasing(pattern.curve ?? "linear");
  if (parsed.ok) return parsed.value;
  names.issues.push(
    fault("curve", [...path, "curve"], { found: `'${pattern.curve?.slice(0, 60)}'`, detail: parsed.detail }),
  );
  return { kind: "linear" };
}

export const compileCharge: CompileKind<"charge", ChargeProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  const fromTicks = names.atLeast(pattern.from, 0);
  const fullTicks = names.atLeast(pattern.full, 0);
  if (fullTicks <= fromTicks) {
    const facts = { full: fullTicks / TICKS, from: fromTicks / TICKS };
    names.issues.push(fault("full-not-above-from", [...path, "full"], facts));
  }
  return {
    kind: "charge",
    control,
    fromTicks,
    fullTicks,
    minTicks: names.atLeast(pattern.min, 0),
    limitTicks: names.atMost(pattern.limit, NEVER),
    levels: compileLevels(pattern, names, path),
    easing: compileCurve(pattern, names, path),
    low: pattern.output?.[0] ?? 0,
    high: pattern.output?.[1] ?? 1,
    fire: pattern.fire,
    controls: [control],
    cancel: compileControls(pattern.cancel, names, [...path, "cancel"]),
    cellCount: 1,
    edgeRoom: 1,
  };
};
