import { compileGates } from "../gates/compileGates";
import type { Issue, Result } from "../formats/issue";
import { compileControlList, compileSticks } from "../input/compileControls";
import { compileModes } from "../modes/compileModes";
import { compileMoves } from "../moves/compileMoves";
import { compilePattern, type CellPlan } from "../patterns/compilePattern";
import { compilePrompts } from "../prompts/compilePrompts";
import type { KitProgram, PatternProgram } from "../patterns/kinds";
import { gatherNames } from "./compileNames";
import type { Kit } from "./schema";
import { findWarnings } from "./warnings";

function listWatchers(patterns: readonly PatternProgram[], controls: number): number[][] {
  const watchers: number[][] = Array.from({ length: controls }, () => []);
  patterns.forEach((pattern, i) => {
    if (!pattern.isOff) for (const control of pattern.watches) watchers[control]?.push(i);
  });
  return watchers;
}

/**
 * Compiles a kit into a program. Milliseconds become ticks here, rounded so that no rule applies early or
 * late. Returns the program with its warnings, or every fault with its path and cure. Example: `const result
 * = compile(kit); if (result.ok) run(result.value, columns)`.
 */
export function compile(kit: Kit): Result<KitProgram> {
  const issues: Issue[] = [];
  const names = gatherNames(kit, issues);
  const controls = compileControlList(names);
  const sticks = compileSticks(names);
  const gates = compileGates(names);
  const plan: CellPlan = { cellCount: 0, choiceStrides: [] };
  const patterns = kit.patterns.map((pattern, i) => compilePattern(pattern, names, ["patterns", i], plan));
  const moves = compileMoves(names);
  const { modes, startMode, switches } = compileModes(names);
  const prompts = compilePrompts(names, patterns);
  if (issues.length > 0) return { ok: false, issues };
  const program: KitProgram = {
    rateHz: kit.rate,
    controls,
    sticks,
    gates,
    patterns,
    moves,
    modes,
    startMode,
    switches,
    prompts,
    keepsAllRequests: kit.queue === "all",
    slots: names.slots.map(id => ({ id, busyGate: names.gateIds.indexOf(`busy:${id}`) })),
    watchers: listWatchers(patterns, controls.length),
    gatesFollowPatterns: gates.some(({ derive }) => derive === "while" || derive === "fires"),
    promptsOpenGates: prompts.some(({ opensGate }) => opensGate >= 0),
    againMoves: moves.flatMap((move, m) => (move.asksAgain && !move.isOff ? [m] : [])),
    outputMoves: moves.flatMap((move, m) => (move.outputGate >= 0 && !move.isOff ? [m] : [])),
    limitedMoves: moves.flatMap((move, m) => (move.usesMax > 0 ? [m] : [])),
    hides:
      modes.length > 0 ||
      patterns.some(p => p.captures && !p.isOff) ||
      prompts.some(p => p.captures.length > 0),
    carries: modes.some(mode => mode.carry),
    sourceCount: controls.length + sticks.length,
    edgeRoom: patterns.reduce((room, pattern) => Math.max(room, pattern.edgeRoom), 1),
    cellCount: plan.cellCount,
    choiceStrides: plan.choiceStrides,
  };
  return { ok: true, value: program, warnings: findWarnings(kit, program) };
}
