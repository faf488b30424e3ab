import { compileControls, type CompileKind } from "../compileParts";
import { MASH_CELLS } from "./step";
import type { MashProgram } from "./program";

export const compileMash: CompileKind<"mash", MashProgram> = (pattern, names, path) => ({
  kind: "mash",
  count: pattern.count,
  withinTicks: names.atMost(pattern.within, 0),
  alternate: pattern.alternate ?? false,
  controls: compileControls(pattern.controls, names, [...path, "controls"]),
  cancel: [],
  cellCount: MASH_CELLS + 2 * pattern.count,
  edgeRoom: pattern.count,
});
