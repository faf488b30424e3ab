import { choiceStride } from "./choices";
import { fault, type PathStep } from "../../formats/issue";
import type { Names } from "../../kit/compileNames";
import type { Step } from "../../kit/schema";
import { NEVER } from "../../program/program";
import type { StepProgram } from "./program";
import { compileControls, type CompileKind } from "../compileParts";
import { sequenceCells } from "./directions";
import type { SequenceProgram } from "./program";

type Bare = StepProgram extends infer S ? (S extends StepProgram ? Omit<S, "laterSources"> : never) : never;

/** Parses "stick:digit"; the stick's name may contain colons. */
function parseDirection(written: string, names: Names, path: readonly PathStep[]) {
  const colon = written.lastIndexOf(":");
  const digit = Number(written.slice(colon + 1));
  if (colon < 1 || !/^[1-9]$/.test(written.slice(colon + 1))) {
    names.issues.push(fault("dir", path, { found: `'${written}'` }));
    return { stick: -1, digit: 5 };
  }
  return { stick: names.stick(written.slice(0, colon), path), digit };
}

function compileStep(
  step: Step,
  names: Names,
  path: readonly PathStep[],
  gapTicks: number,
  sticks: number[],
): Bare {
  const times = { gapTicks: names.atMost(step.gap, gapTicks), afterTicks: names.atLeast(step.after, 0) };
  if ("press" in step)
    return { ...times, does: "press", control: names.control(step.press, [...path, "press"]) };
  if ("release" in step)
    return { ...times, does: "release", control: names.control(step.release, [...path, "release"]) };
  if ("hold" in step) {
    const control = names.control(step.hold, [...path, "hold"]);
    return { ...times, does: "hold", control, forTicks: names.atLeast(step.for, 0) };
  }
  if ("together" in step) {
    const controls = compileControls(step.together, names, [...path, "together"]);
    return { ...times, does: "together", controls, withinTicks: names.atMost(step.within, 0) };
  }
  const { stick, digit } = parseDirection(step.dir, names, [...path, "dir"]);
  if (stick >= 0 && !sticks.includes(stick)) sticks.push(stick);
  const slot = sticks.indexOf(stick);
  if (step.for === undefined) return { ...times, does: "dir", stick, slot, digit };
  return { ...times, does: "face", stick, slot, digit, forTicks: names.atLeast(step.for, 0) };
}

function controlsOfStep(step: Bare, names: Names): number[] {
  switch (step.does) {
    case "press":
    case "release":
    case "hold":
      return [step.control];
    case "together":
      return [...step.controls];
    case "dir":
    case "face": {
      const stick = names.kit.sticks?.[step.stick];
      if (!stick) return [];
      return [stick.up, stick.down, stick.left, stick.right].map(id =>
        names.kit.controls.findIndex(c => c.id === id),
      );
    }
  }
}

/**
 * Marks the sources whose current press or direction this step or a later one could use long after it began.
 */
function laterSources(steps: readonly Bare[], from: number, names: Names): boolean[] {
  const controls = names.kit.controls.length;
  const later = new Array<boolean>(controls + (names.kit.sticks?.length ?? 0)).fill(false);
  for (const step of steps.slice(from)) {
    if (step.does === "hold") later[step.control] = true;
    if (step.does === "together") for (const control of step.controls) later[control] = true;
    if (step.does === "face") later[controls + step.stick] = true;
  }
  return later;
}

export const compileSequence: CompileKind<"sequence", SequenceProgram> = (pattern, names, path) => {
  const sticks: number[] = [];
  const gapTicks = names.atMost(pattern.gap, 0);
  const bare = pattern.steps.map((step, k) =>
    compileStep(step, names, [...path, "steps", k], gapTicks, sticks),
  );
  const controls = [...new Set(bare.flatMap(step => controlsOfStep(step, names)))].filter(c => c >= 0);
  const ofSticks = (names.kit.sticks ?? []).flatMap(s => [s.up, s.down, s.left, s.right]);
  const spares = new Set([...ofSticks, ...(pattern.cancel ?? [])]);
  const breakers =
    pattern.others === "break"
      ? names.kit.controls.flatMap((c, i) => (controls.includes(i) || spares.has(c.id) ? [] : [i]))
      : [];
  const edgeRoom = bare.reduce((sum, step) => sum + (step.does === "together" ? step.controls.length : 1), 0);
  return {
    kind: "sequence",
    steps: bare.map((step, k) => ({ ...step, laterSources: laterSources(bare, k, names) })),
    totalTicks: names.atMost(pattern.total, NEVER),
    isSpaced: bare.some(({ afterTicks }) => afterTicks > 0),
    isFaced: bare.some(({ does }) => does === "face"),
    heldControls: [...new Set(bare.flatMap(step => (step.does === "hold" ? [step.control] : [])))],
    breakers,
    sticks,
    choices: -1,
    choiceStride: choiceStride(bare.length, edgeRoom),
    controls,
    cancel: compileControls(pattern.cancel, names, [...path, "cancel"]),
    cellCount: sequenceCells(sticks.length),
    edgeRoom,
    alsoWatches: breakers,
  };
};
