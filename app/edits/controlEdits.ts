import type { Kit } from "#core";
import { freshId } from "./freshId";

/** Returns a kit with a new control, whose id is made from its name and unique among controls and sticks. */
export function addControl(kit: Kit, name: string): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  return { ...kit, controls: [...kit.controls, { id: freshId(name, taken), name, bindings: [] }] };
}

/**
 * Returns a kit without one control. Rules that use it remain, and become faults; its lanes in takes remain.
 */
export function removeControl(kit: Kit, controlId: string): Kit {
  return { ...kit, controls: kit.controls.filter(control => control.id !== controlId) };
}

/** Returns a kit with the bindings of one control replaced. */
export function bindControl(kit: Kit, controlId: string, bindings: readonly (readonly string[])[]): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => (control.id === controlId ? { ...control, bindings } : control)),
  };
}

/**
 * Sets the press and release thresholds of controls; the release threshold never exceeds the press threshold.
 */
export function setThresholds(
  kit: Kit,
  controlIds: readonly string[],
  which: "pressAt" | "releaseAt",
  value: number,
): Kit {
  const round = Math.round(Math.max(0.01, Math.min(1, value)) * 100) / 100;
  return {
    ...kit,
    controls: kit.controls.map(control => {
      if (!controlIds.includes(control.id)) return control;
      const pressAt = which === "pressAt" ? round : Math.max(control.pressAt ?? 0.5, round);
      const releaseAt = which === "releaseAt" ? round : Math.min(control.releaseAt ?? 0.4, round);
      return { ...control, pressAt, releaseAt };
    }),
  };
}

/**
 * Returns a kit with a new stick of four controls, whose id is made from its name and unique among controls
 * and sticks.
 */
export function addStick(
  kit: Kit,
  name: string,
  sides: Readonly<Record<"up" | "down" | "left" | "right", string>>,
): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  return { ...kit, sticks: [...(kit.sticks ?? []), { id: freshId(name, taken), name, ...sides }] };
}
