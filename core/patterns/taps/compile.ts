import { NEVER } from "../../program/program";
import type { CompileKind } from "../compileParts";
import { TAPS_CELLS } from "./step";
import type { TapsProgram } from "./program";

export const compileTaps: CompileKind<"taps", TapsProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  return {
    kind: "taps",
    control,
    count: pattern.count,
    gapTicks: names.atMost(pattern.gap, 0),
    maxTicks: names.atMost(pattern.max, NEVER),
    answer: pattern.answer,
    controls: [control],
    cancel: [],
    cellCount: TAPS_CELLS + pattern.count,
    edgeRoom: pattern.count,
  };
};
