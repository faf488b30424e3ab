import type { Kit } from "#core";

/** Renames a kit. */
export function renameKit(kit: Kit, name: string): Kit {
  return { ...kit, name };
}

/** A new control with an id made from its name that no control or stick has yet. */
export function addControl(kit: Kit, name: string): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  return { ...kit, controls: [...kit.controls, { id: freshId(name, taken), name, bindings: [] }] };
}

/** The bindings of one control replaced. */
export function bindControl(kit: Kit, controlId: string, bindings: readonly (readonly string[])[]): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => (control.id === controlId ? { ...control, bindings } : control)),
  };
}

/** An id made of a name: lower case, words joined by hyphens, a number at the end if it is taken. */
export function freshId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "") || "rule";
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}

/** The starters of this slice: a press, a tap or a hold on a control, with numbers that work. */
export function addPattern(kit: Kit, kind: "press" | "tap" | "hold", controlId: string): Kit {
  const control = kit.controls.find(item => item.id === controlId);
  const name = `${control?.name ?? controlId} ${kind}`;
  const id = freshId(name, new Set(kit.patterns.map(pattern => pattern.id)));
  const head = { id, name, control: controlId };
  const pattern =
    kind === "press"
      ? { ...head, kind }
      : kind === "tap"
        ? { ...head, kind, max: "9f" }
        : { ...head, kind, for: "18f", fire: "reach" as const };
  return { ...kit, patterns: [...kit.patterns, pattern] };
}

/** A kit without one pattern. References to it are left, and the core says so. */
export function removePattern(kit: Kit, patternId: string): Kit {
  return { ...kit, patterns: kit.patterns.filter(pattern => pattern.id !== patternId) };
}
