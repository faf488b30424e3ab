import { STANDARD_AXES, STANDARD_BUTTONS, type PadMap, type PadSource } from "#core";
import type { PadReading } from "./gamepads";

/** How near the value of a hat switch must be to one of its own. */
const HAT_WITHIN = 0.1;
/** The least way of an axis that is more than its noise. */
const LEAST_WAY = 0.2;

/** Returns how far a source of a pad is pressed, from 0 to 1; 0 if the pad lacks it. */
function readSource({ buttons, axes }: PadReading, source: PadSource): number {
  if (source.kind === "button") return buttons[source.button]?.value ?? 0;
  const value = axes[source.axis];
  if (value === undefined) return 0;
  if (source.kind === "hat") return source.at.some(at => Math.abs(value - at) < HAT_WITHIN) ? 1 : 0;
  const way = source.to - source.from;
  return Math.abs(way) < LEAST_WAY ? 0 : Math.max(0, Math.min(1, (value - source.from) / way));
}

/** Returns a reading of a pad as one of the standard layout, by its map. */
export function mapPad(pad: PadReading, { buttons, axes }: PadMap): PadReading {
  const values = Array.from({ length: STANDARD_BUTTONS }, () => ({ value: 0 }));
  for (const { is, source } of buttons) values[is] = { value: readSource(pad, source) };
  const ways = Array.from({ length: STANDARD_AXES }, () => 0);
  for (const { is, axis, rest, full } of axes) {
    const way = full - rest;
    const share = Math.abs(way) < LEAST_WAY ? 0 : ((pad.axes[axis] ?? rest) - rest) / way;
    ways[is] = Math.max(-1, Math.min(1, share));
  }
  return { ...pad, mapping: "standard", buttons: values, axes: ways };
}
