import type { PathStep } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { Pattern, PatternKind } from "../kit/schema";
import type { PatternProgram } from "../run/program";
import { compileCharge } from "./charge/compile";
import { compileChord } from "./chord/compile";
import type { CompileKind, OwnPart } from "./compileParts";
import { compileHold } from "./hold/compile";
import { compileMash } from "./mash/compile";
import { compilePress } from "./press/compile";
import { compileRelease } from "./release/compile";
import { compileSequence } from "./sequence/compile";
import { choiceStride } from "./sequence/choices";
import { compileTap } from "./tap/compile";
import { compileTaps } from "./taps/compile";

/** One line a kind; a kind left out does not compile. */
const COMPILERS: { readonly [K in PatternKind]: CompileKind<K> } = {
  press: compilePress,
  release: compileRelease,
  tap: compileTap,
  hold: compileHold,
  charge: compileCharge,
  taps: compileTaps,
  chord: compileChord,
  sequence: compileSequence,
  mash: compileMash,
};

/** Where the next pattern's cells begin, and the sizes of the sequences' choices so far. */
export interface Layout {
  cellCount: number;
  readonly choiceStrides: number[];
}

function compileOwnPart<K extends PatternKind>(
  pattern: Pattern,
  names: Names,
  path: readonly PathStep[],
): OwnPart<K> {
  return (COMPILERS[pattern.kind] as CompileKind<PatternKind>)(pattern, names, path) as OwnPart<K>;
}

/** One pattern, compiled; its cells are laid after those of the patterns before it. */
export function compilePattern(
  pattern: Pattern,
  names: Names,
  path: readonly PathStep[],
  layout: Layout,
): PatternProgram {
  const { alsoWatches, ...own } = compileOwnPart<PatternKind>(pattern, names, path);
  const base = layout.cellCount;
  layout.cellCount += own.cellCount;
  const compiled = {
    ...own,
    id: pattern.id,
    isOff: pattern.off ?? false,
    isReal: pattern.clock === "real",
    captures: pattern.captures ?? false,
    activeIn: names.activeIn(pattern.modes, path),
    watches: [...new Set([...own.controls, ...own.cancel, ...(alsoWatches ?? [])])],
    base,
  } as unknown as PatternProgram;
  if (compiled.kind !== "sequence") return compiled;
  layout.choiceStrides.push(choiceStride(compiled.steps.length, compiled.edgeRoom));
  return { ...compiled, choices: layout.choiceStrides.length - 1 };
}
