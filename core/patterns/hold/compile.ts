import { fault } from "../../formats/issue";
import { NEVER } from "../../program/program";
import { compileControls, type CompileKind } from "../compileParts";
import type { HoldProgram } from "./program";

export const compileHold: CompileKind<"hold", HoldProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  const onReach = pattern.fire === "reach";
  if (onReach && pattern.max !== undefined) names.issues.push(fault("max-on-reach", [...path, "max"]));
  if (!onReach && pattern.repeat) names.issues.push(fault("repeat-on-release", [...path, "repeat"]));
  return {
    kind: "hold",
    control,
    forTicks: names.atLeast(pattern.for, 0),
    onReach,
    maxTicks: names.atMost(pattern.max, NEVER),
    everyTicks: names.atLeast(pattern.repeat?.every, 0),
    controls: [control],
    cancel: compileControls(pattern.cancel, names, [...path, "cancel"]),
    cellCount: 2,
    edgeRoom: 1,
  };
};
