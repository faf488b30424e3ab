import type { CompileKind } from "../compileParts";
import type { ReleaseProgram } from "./program";

export const compileRelease: CompileKind<"release", ReleaseProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  return { kind: "release", control, controls: [control], cancel: [], cellCount: 1, edgeRoom: 1 };
};
