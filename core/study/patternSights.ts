import type { PatternBase, Program } from "../program/program";

/** Whether a pattern sees one of its controls in a mode, or is cancelled by it, and what hides it otherwise. */
export interface PatternSight {
  /** Indices into the program's lists; `by` is the capturing pattern, −1 otherwise. */
  readonly pattern: number;
  readonly verdict: "hears" | "cancels" | "off" | "other-mode" | "captured";
  readonly by: number;
}

function isActive(pattern: PatternBase, mode: number): boolean {
  return !pattern.isOff && pattern.activeIn[Math.max(0, mode)] === true;
}

/**
 * Lists, in kit order, every pattern whose attempt or steps use a control or that it cancels, and whether it
 * sees the control in a mode (0 in a kit without modes). A capturing pattern hides its controls from all patterns that do not
 * capture them, while it is active. A stick's direction counts as a use of its four controls. Prompts that
 * capture are ignored, since they come and go. Source: frame rules, section 4, on hiding.
 */
export function listPatternSights(program: Program, control: number, mode: number): PatternSight[] {
  const captor = program.patterns.findIndex(
    pattern => pattern.captures && isActive(pattern, mode) && pattern.controls.includes(control),
  );
  return program.patterns.flatMap((pattern, i): PatternSight[] => {
    const isOwn = pattern.controls.includes(control);
    if (!isOwn && !pattern.cancel.includes(control)) return [];
    if (pattern.isOff) return [{ pattern: i, verdict: "off", by: -1 }];
    if (!isActive(pattern, mode)) return [{ pattern: i, verdict: "other-mode", by: -1 }];
    if (captor >= 0 && !pattern.captures) return [{ pattern: i, verdict: "captured", by: captor }];
    return [{ pattern: i, verdict: isOwn ? "hears" : "cancels", by: -1 }];
  });
}

/** Lists the prompts that a press of a control in their window fails, in a mode (0 in a kit without modes), in kit order. */
export function listPromptsFailedBy(program: Program, control: number, mode: number): number[] {
  return program.prompts.flatMap(({ isOff, activeIn, wrongControls }, p) =>
    !isOff && activeIn[Math.max(0, mode)] && wrongControls.includes(control) ? [p] : [],
  );
}
