import type { Kit, Layout } from "#core";

/** Renames a kit. */
export function renameKit(kit: Kit, name: string): Kit {
  return { ...kit, name };
}

/** A new control with an id made from its name that no control or stick has yet. */
export function addControl(kit: Kit, name: string): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  return { ...kit, controls: [...kit.controls, { id: freshId(name, taken), name, bindings: [] }] };
}

/** A kit without one control. Rules that listen to it are left, and the core says so; its lanes in takes stay. */
export function removeControl(kit: Kit, controlId: string): Kit {
  return { ...kit, controls: kit.controls.filter(control => control.id !== controlId) };
}

/** The bindings of one control replaced. */
export function bindControl(kit: Kit, controlId: string, bindings: readonly (readonly string[])[]): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => (control.id === controlId ? { ...control, bindings } : control)),
  };
}

/** The bindings of a layout laid over a kit: controls it does not name keep theirs, names the kit lacks are passed over. */
export function applyLayout(kit: Kit, layout: Layout): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => {
      const bindings = Object.hasOwn(layout.bindings, control.id) ? layout.bindings[control.id] : undefined;
      return bindings ? { ...control, bindings } : control;
    }),
  };
}

/** The present bindings of a kit as a layout. */
export function layoutOf(kit: Kit, id: string, name: string): Layout {
  const bindings = Object.fromEntries(kit.controls.map(control => [control.id, control.bindings]));
  return { format: "moss-tap/layout", version: 1, id, name, bindings };
}

/** The press and release points of controls, kept in order: the release point is never above the press point. */
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

/** A stick of four controls. Its id is made from its name; no control or stick has it yet. */
export function addStick(
  kit: Kit,
  name: string,
  sides: Readonly<Record<"up" | "down" | "left" | "right", string>>,
): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  return { ...kit, sticks: [...(kit.sticks ?? []), { id: freshId(name, taken), name, ...sides }] };
}

/** A list field of a kit without one of its items; the field goes with the last. */
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

/** As many letters of a name are made into an id: a number behind them still fits the bound of ids. */
const MOST_LETTERS = 60;

/** An id made of a name: lower case, words joined by hyphens, a number at the end if it is taken. */
export function freshId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .slice(0, MOST_LETTERS)
      .replace(/^-|-$/g, "") || "rule";
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}
