import type { PatternProgram, Program } from "../run/program";

/** Whether a pattern hears one of its controls in a mode, and if not, what keeps it from hearing. */
export interface Hearer {
  /** Places in the program's lists; `by` is the capturing pattern, −1 otherwise. */
  readonly pattern: number;
  readonly verdict: "hears" | "off" | "other-mode" | "captured";
  readonly by: number;
}

function isActive(pattern: PatternProgram, mode: number): boolean {
  return !pattern.isOff && pattern.activeIn[Math.max(0, mode)] === true;
}

/**
 * Who hears a control in a mode (0 in a kit without modes), pattern by pattern in kit order, for every pattern whose
 * attempt or steps use it. A pattern that captures takes its controls from all that do not, wherever it is active. A
 * stick's direction counts as a use of its four controls. Prompts that capture are not looked at: they come and go.
 * Source: frame rules, section 4, on hiding.
 */
export function listHearers(program: Program, control: number, mode: number): Hearer[] {
  const captor = program.patterns.findIndex(
    pattern => pattern.captures && isActive(pattern, mode) && pattern.controls.includes(control),
  );
  return program.patterns.flatMap((pattern, i): Hearer[] => {
    if (!pattern.controls.includes(control)) return [];
    if (pattern.isOff) return [{ pattern: i, verdict: "off", by: -1 }];
    if (!isActive(pattern, mode)) return [{ pattern: i, verdict: "other-mode", by: -1 }];
    if (captor >= 0 && !pattern.captures) return [{ pattern: i, verdict: "captured", by: captor }];
    return [{ pattern: i, verdict: "hears", by: -1 }];
  });
}
