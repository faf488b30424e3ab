import type { CompileKind } from "../compileParts";

export const compileRelease: CompileKind<"release"> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  return { kind: "release", control, controls: [control], cancel: [], cellCount: 1, edgeRoom: 1 };
};
