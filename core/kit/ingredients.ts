import type { Gate, Kit, Pattern } from "./schema";
import type { Bundle, TakeId } from "./starter";

/** Returns a pattern that fires on the press of a control. */
export const press = (id: string, name: string, control: string): Pattern => ({
  id,
  name,
  kind: "press",
  control,
});

/** Returns the existing press pattern of a control that is active in all modes, or a new one. */
export function pressOf(
  kit: Kit,
  control: Kit["controls"][number],
  take: TakeId,
): { id: string; patterns: Pattern[] } {
  const found = kit.patterns.find(
    pattern => pattern.kind === "press" && pattern.control === control.id && !pattern.off && !pattern.modes,
  );
  if (found) return { id: found.id, patterns: [] };
  const name = `${control.name} press`;
  const id = take("pattern", name);
  return { id, patterns: [press(id, name, control.id)] };
}

/** Returns the existing gate of that name, or a new one. */
export function gateNamed(kit: Kit, name: string, take: TakeId): { id: string; gates: Gate[] } {
  const found = kit.gates?.find(gate => gate.name === name);
  if (found) return { id: found.id, gates: [] };
  const id = take("gate", name);
  return { id, gates: [{ id, name }] };
}

/** Returns the kit's stick, or a new one of four controls on the arrow keys. */
export function stickOf(kit: Kit, take: TakeId): { id: string; bundle: Partial<Bundle> } {
  const found = kit.sticks?.[0];
  if (found) return { id: found.id, bundle: {} };
  const sides = (["Up", "Down", "Left", "Right"] as const).map(name => {
    const known = kit.controls.find(control => control.name === name);
    return known ?? { id: take("control", name), name, bindings: [[`key:Arrow${name}`]] };
  });
  const [up, down, left, right] = sides.map(side => side.id) as [string, string, string, string];
  const id = take("control", "Stick");
  return {
    id,
    bundle: {
      controls: sides.filter(side => !kit.controls.includes(side)),
      sticks: [{ id, name: "Stick", up, down, left, right }],
    },
  };
}
