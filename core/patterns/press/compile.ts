import { TICKS } from "../../time/clock";
import type { CompileKind } from "../compileParts";
import type { PressProgram } from "./program";

export const compilePress: CompileKind<"press", PressProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  return {
    kind: "press",
    control,
    repeat: pattern.repeat
      ? {
          afterTicks: names.atLeast(pattern.repeat.after, 0),
          everyTicks: names.atLeast(pattern.repeat.every, TICKS),
        }
      : null,
    controls: [control],
    cancel: [],
    cellCount: 3,
    edgeRoom: 1,
  };
};
