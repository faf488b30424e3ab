import type { Kit, Layout } from "#core";

/** Returns a kit with another name. */
export function renameKit(kit: Kit, name: string): Kit {
  return { ...kit, name };
}

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
 * Returns a kit with the bindings of a layout: controls the layout does not name keep theirs, names the kit
 * lacks are ignored.
 */
export function applyLayout(kit: Kit, layout: Layout): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => {
      const bindings = Object.hasOwn(layout.bindings, control.id) ? layout.bindings[control.id] : undefined;
      return bindings ? { ...control, bindings } : control;
    }),
  };
}

/** Returns the current bindings of a kit as a layout. */
export function layoutOf(kit: Kit, id: string, name: string): Layout {
  const bindings = Object.fromEntries(kit.controls.map(control => [control.id, control.bindings]));
  return { format: "moss-tap/layout", version: 1, id, name, bindings };
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

/** Returns a kit without one item of a list; the field is removed with the last item. */
export function removeAt<F extends "sticks" | "gates" | "moves" | "modes" | "switches" | "prompts">(
  kit: Kit,
  field: F,
  at: number,
): Kit {
  const left = (kit[field] ?? []).filter((_, k) => k !== at);
  if (left.length > 0) return { ...kit, [field]: left };
  const { [field]: gone, ...rest } = kit;
  return rest as Kit;
}

/** The length of an id made from a name; a number behind it still fits the bound of ids. */
const MAX_LETTERS = 60;

/** Returns an id made from a name: lower case, words joined by hyphens, with a number if it is taken. */
export function freshId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .slice(0, MAX_LETTERS)
      .replace(/^-|-$/g, "") || "rule";
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}
