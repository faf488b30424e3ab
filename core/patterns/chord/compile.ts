import { NEVER } from "../../program/program";
import { compileControls, type CompileKind } from "../compileParts";
import type { ChordProgram } from "./program";

export const compileChord: CompileKind<"chord", ChordProgram> = (pattern, names, path) => {
  const controls = compileControls(pattern.controls, names, [...path, "controls"]);
  return {
    kind: "chord",
    spreadTicks: names.atMost(pattern.spread, NEVER),
    forTicks: names.atLeast(pattern.for, -1),
    controls,
    cancel: [],
    cellCount: 4,
    edgeRoom: controls.length,
  };
};
