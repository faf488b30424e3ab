import { LAYOUT_PADS, ownValue } from "#core";
import type { Kit, Layout, PadMap } from "#core";

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

/** Returns the current bindings of a kit as a layout, with the maps of the pads that were mapped last, as many as it can carry. */
export function layoutOf(kit: Kit, id: string, name: string, pads: readonly PadMap[] = []): Layout {
  const bindings = Object.fromEntries(kit.controls.map(control => [control.id, control.bindings]));
  const own = { format: "moss-tap/layout", version: 1, id, name, bindings } as const;
  return pads.length > 0 ? { ...own, pads: pads.slice(-LAYOUT_PADS) } : own;
}
