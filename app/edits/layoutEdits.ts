import { ownValue } from "#core";
import type { Kit, Layout } from "#core";

/**
 * Returns a kit with the bindings of a layout: controls the layout does not name keep theirs, names the kit
 * lacks are ignored.
 */
export function applyLayout(kit: Kit, layout: Layout): Kit {
  return {
    ...kit,
    controls: kit.controls.map(control => {
      const bindings = ownValue(layout.bindings, control.id);
      return bindings ? { ...control, bindings } : control;
    }),
  };
}

/** Returns the current bindings of a kit as a layout. */
export function layoutOf(kit: Kit, id: string, name: string): Layout {
  const bindings = Object.fromEntries(kit.controls.map(control => [control.id, control.bindings]));
  return { format: "moss-tap/layout", version: 1, id, name, bindings };
}
