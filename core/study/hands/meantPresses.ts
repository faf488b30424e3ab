import { ownValue } from "../../formats/ownValue";
import type { Take } from "../../input/takeSchema";
import type { Program } from "../../program/program";

/**
 * Returns the controls whose presses a player means as part of the rules: those of patterns that a move or a prompt uses. A
 * stick counts as its four controls. Presses of others, such as walking, are not counted in studies.
 */
export function meantControls(program: Program): ReadonlySet<number> {
  const used = [
    ...program.moves.filter(({ isOff }) => !isOff).map(({ pattern }) => pattern),
    ...program.prompts.filter(({ isOff }) => !isOff).flatMap(({ ask, drawFrom }) => [...ask, ...drawFrom]),
  ];
  return new Set(used.flatMap(pattern => program.patterns[pattern]!.controls));
}

/** Returns whether a press of a take that lasts from `from` to `to`, in frames of the take, is marked as not meant. */
export function isUnmeant(take: Take, controlId: string, from: number, to: number): boolean {
  return ownValue(take.unmeant, controlId)?.some(x => x >= from && x <= to) ?? false;
}
