import type { PathStep } from "../formats/issue";
import type { Assist } from "./assistSchema";
import { writeAt } from "./editAt";
import { listLengths } from "./lengths";
import type { Kit, Pattern } from "./schema";

/** A written length times so many percent, in its own unit: frames to the nearest whole one, ms to the nearest thousandth. */
export function scaleLength(written: string, percent: number): string {
  const [, figure, unit] = /^([\d.]+)(f|ms)$/.exec(written) ?? [];
  if (figure === undefined) return written;
  const scaled = (Number(figure) * percent) / 100;
  if (unit === "ms") return `${Math.round(scaled * 1000) / 1000}ms`;
  return `${Number(figure) > 0 && percent > 0 ? Math.max(1, Math.round(scaled)) : Math.round(scaled)}f`;
}

const fieldOf = (path: readonly PathStep[]) => String(path.findLast(step => typeof step === "string"));

/** The fields whose lengths say until when something still counts; a tap's longest press and a sequence's whole time among them. */
const WINDOW_FIELDS: ReadonlySet<string> = new Set([
  "buffer",
  "coyote",
  "linger",
  "window",
  "within",
  "spread",
  "total",
]);

/** Does a length of a kit say until when something still counts? Gaps of taps and sequences do; a tap's `max` does. */
function isWindow(kit: Kit, path: readonly PathStep[]): boolean {
  const field = fieldOf(path);
  if (WINDOW_FIELDS.has(field)) return true;
  if (path[0] !== "patterns") return false;
  const { kind } = kit.patterns[Number(path[1])]!;
  return field === "gap" || (field === "max" && kind === "tap");
}

/** Is a length the gap between taps of one control? */
function isTapGap(kit: Kit, path: readonly PathStep[]): boolean {
  return path[0] === "patterns" && path[2] === "gap" && kit.patterns[Number(path[1])]!.kind === "taps";
}

/** The controls that a pattern asks to be held down. */
function heldBy(pattern: Pattern): readonly string[] {
  switch (pattern.kind) {
    case "hold":
    case "charge":
      return [pattern.control];
    case "chord":
      return pattern.for === undefined ? [] : pattern.controls;
    case "sequence":
      return pattern.steps.flatMap(step => ("hold" in step ? [step.hold] : []));
    default:
      return [];
  }
}

/** A mash as a hold of its first control, as long as the mash had time. */
function toHold(pattern: Pattern): Pattern {
  if (pattern.kind !== "mash") return pattern;
  const { controls, count: _count, within, alternate: _alternate, ...rest } = pattern;
  return { ...rest, kind: "hold", control: controls[0]!, for: within, fire: "reach" };
}

/**
 * A kit as an assist makes it. `windows`: every length until which something still counts (buffers, coyotes, gaps, spreads,
 * windows and grades of prompts, lingers, longest taps) times so many percent; `gaps`: the gaps between taps, on top of that;
 * `mashes`: each mash becomes a hold of its first control for the time it had; `toggles`: each control that a pattern asks
 * to be held turns down by one press and up by the next. In this order. Lengths keep their unit and are rounded to its
 * nearest; none above zero becomes zero. The kit that comes of it has no assists of its own. Source: frame rules, section 11.
 */
export function applyAssist(kit: Kit, assist: Assist): Kit {
  const { windows = 100, gaps = 100 } = assist;
  let changed: Kit = kit;
  for (const { path, written } of listLengths(kit)) {
    const percent = (isWindow(kit, path) ? windows : 100) * (isTapGap(kit, path) ? gaps / 100 : 1);
    if (percent !== 100) changed = writeAt(changed, path, scaleLength(written, percent));
  }
  if (assist.mashes) changed = { ...changed, patterns: changed.patterns.map(toHold) };
  if (assist.toggles) {
    const held = new Set(changed.patterns.flatMap(heldBy));
    const controls = changed.controls.map(control =>
      held.has(control.id) ? { ...control, toggle: true } : control,
    );
    changed = { ...changed, controls };
  }
  const { assists: _assists, ...rest } = changed;
  return rest;
}

/** An assist of a kit, or undefined where the kit has no such. */
export function findAssist(kit: Kit, id: string | undefined): Assist | undefined {
  return kit.assists?.find(assist => assist.id === id);
}
