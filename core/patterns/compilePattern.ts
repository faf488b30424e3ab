import type { PathStep } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { Pattern } from "../kit/schema";
import type { PatternProgram } from "./kinds";
import { recordOf } from "./recordOf";

/** The offset of the next pattern's cells, and the sizes of the sequences' choices so far. */
export interface CellPlan {
  cellCount: number;
  readonly choiceStrides: number[];
}

/** Compiles one pattern; its cells follow those of the patterns before it. */
export function compilePattern(
  pattern: Pattern,
  names: Names,
  path: readonly PathStep[],
  plan: CellPlan,
): PatternProgram {
  const { carries, compile } = recordOf(pattern.kind);
  const { alsoWatches, choiceStride, ...own } = compile(pattern, names, path);
  const base = plan.cellCount;
  plan.cellCount += own.cellCount;
  const compiled = {
    ...own,
    id: pattern.id,
    isOff: pattern.off ?? false,
    isReal: pattern.clock === "real",
    captures: pattern.captures ?? false,
    activeIn: names.activeIn(pattern.modes, path),
    watches: [...new Set([...own.controls, ...own.cancel, ...(alsoWatches ?? [])])],
    payloadSize: Math.max(1, carries.length),
    outputColumn: carries.indexOf("value"),
    base,
  } as unknown as PatternProgram;
  if (choiceStride === undefined) return compiled;
  plan.choiceStrides.push(choiceStride);
  return { ...compiled, choices: plan.choiceStrides.length - 1 } as PatternProgram;
}
