import { traitsOf } from "../patterns/recordOf";
import type { PathStep } from "../formats/issue";
import type { Assist } from "./assistSchema";
import { writeAt } from "./editAt";
import { listLengths } from "./lengths";
import { LONGEST_WRITTEN } from "../time/duration";
import type { Kit, Pattern } from "./schema";

/**
 * Scales a written length by a percentage in its own unit: frames to the nearest whole one, ms to the nearest
 * thousandth. The result stops at the longest length that can be written.
 */
export function scaleLength(written: string, percent: number): string {
  const [, figure, unit] = /^([\d.]+)(f|ms)$/.exec(written) ?? [];
  if (figure === undefined) return written;
  const scaled = Math.min(LONGEST_WRITTEN, (Number(figure) * percent) / 100);
  if (unit === "ms") return `${Math.round(scaled * 1000) / 1000}ms`;
  return `${Number(figure) > 0 && percent > 0 ? Math.max(1, Math.round(scaled)) : Math.round(scaled)}f`;
}

const fieldOf = (path: readonly PathStep[]) => String(path.findLast(step => typeof step === "string"));

/** The fields whose lengths are windows, including a tap's longest press and a sequence's total time. */
const WINDOW_FIELDS: ReadonlySet<string> = new Set([
  "buffer",
  "coyote",
  "linger",
  "early",
  "late",
  "window",
  "within",
  "spread",
  "total",
]);

/**
 * Returns whether a length of a kit is a window. The gaps of taps and sequences are; so is the `max` of taps.
 */
function isWindow(kit: Kit, path: readonly PathStep[]): boolean {
  const field = fieldOf(path);
  if (WINDOW_FIELDS.has(field)) return true;
  if (path[0] !== "patterns") return false;
  const { windowFields = [] } = traitsOf(kit.patterns[Number(path[1])]!.kind);
  return windowFields.includes(field);
}

/** Returns whether a length is the gap between taps of one control. */
function isTapGap(kit: Kit, path: readonly PathStep[]): boolean {
  if (path[0] !== "patterns") return false;
  const { tapGapField } = traitsOf(kit.patterns[Number(path[1])]!.kind);
  return tapGapField !== undefined && path[2] === tapGapField;
}

/** Returns the lengths of a kit that an assist scales, each with the percentage. */
function listScaled(kit: Kit, { windows = 100, gaps = 100 }: Assist) {
  if (windows === 100 && gaps === 100) return [];
  return listLengths(kit).flatMap(({ path, written }) => {
    const percent = (isWindow(kit, path) ? windows : 100) * (isTapGap(kit, path) ? gaps / 100 : 1);
    return percent === 100 ? [] : [{ path, written, percent }];
  });
}

/** Returns the lengths that an assist would scale beyond the longest one that can be written. */
export function listBeyond(kit: Kit, assist: Assist): ReturnType<typeof listScaled> {
  return listScaled(kit, assist).filter(
    ({ written, percent }) => (parseFloat(written) * percent) / 100 > LONGEST_WRITTEN,
  );
}

/**
 * Returns the kit changed by an assist, in this order. `windows`: scales every length that is a window
 * (buffers, coyotes, gaps, spreads, windows and grades of prompts, lingers, longest taps) by the percentage;
 * `gaps`: scales the gaps between taps, in addition; `mashes`: replaces each mash by a hold of its first
 * control for the mash's time; `toggles`: each control that must be held turns down by one press and up by
 * the next. Lengths keep their unit and are rounded in it; none above zero becomes zero, and none becomes
 * longer than can be written. The result has no
 * assists. Source: frame rules, section 11.
 */
export function applyAssist(kit: Kit, assist: Assist): Kit {
  let changed: Kit = kit;
  for (const { path, written, percent } of listScaled(kit, assist))
    changed = writeAt(changed, path, scaleLength(written, percent));
  const toHold = (pattern: Pattern): Pattern => traitsOf(pattern.kind).toHold?.(pattern) ?? pattern;
  if (assist.mashes) changed = { ...changed, patterns: changed.patterns.map(toHold) };
  if (assist.toggles) {
    const held = new Set(changed.patterns.flatMap(pattern => traitsOf(pattern.kind).held?.(pattern) ?? []));
    const controls = changed.controls.map(control =>
      held.has(control.id) ? { ...control, toggle: true } : control,
    );
    changed = { ...changed, controls };
  }
  const { assists: _assists, ...rest } = changed;
  return rest;
}

/** Returns an assist of a kit, or undefined if the kit has none of that id. */
export function findAssist(kit: Kit, id: string | undefined): Assist | undefined {
  return kit.assists?.find(assist => assist.id === id);
}
