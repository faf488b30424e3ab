import type { CompileKind } from "../compileParts";
import type { TapProgram } from "./program";

export const compileTap: CompileKind<"tap", TapProgram> = (pattern, names, path) => {
  const control = names.control(pattern.control, [...path, "control"]);
  const maxTicks = names.atMost(pattern.max, 0);
  return { kind: "tap", control, maxTicks, controls: [control], cancel: [], cellCount: 1, edgeRoom: 1 };
};
