import type { Kit } from "#core";
import type { RunnerDocument } from "#stage";
import { freshId } from "./edits";

/** A small level to begin with: two beams and a gap, a higher one, and the ground again. */
const LEVEL = [
  "                                ",
  "                                ",
  "                    #####       ",
  "                                ",
  "  @          #####              ",
  "##########                ######",
  "##########   #####        ######",
];

/** The control that is called so, or whose key is the arrow that way; else undefined. */
function findSide(kit: Kit, name: "left" | "right"): string | undefined {
  const arrow = name === "left" ? "key:ArrowLeft" : "key:ArrowRight";
  return kit.controls.find(
    control =>
      control.id === name || control.name.toLowerCase() === name || control.bindings.flat().includes(arrow),
  )?.id;
}

/**
 * A kit with a runner's stage: left and right are found by name or made on the arrow keys, the ground opens the gate
 * called Footing (or Ground), which is made if there is none. Rules stay as they are.
 */
export function giveRunner(kit: Kit): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  const made: Kit["controls"][number][] = [];
  const side = (name: "left" | "right") => {
    const found = findSide(kit, name);
    if (found) return found;
    const id = freshId(name, taken);
    taken.add(id);
    const label = name === "left" ? "Left" : "Right";
    made.push({ id, name: label, bindings: [[`key:Arrow${label}`]] });
    return id;
  };
  const known = kit.gates?.find(gate => /^(footing|ground)$/i.test(gate.name));
  const footing = known?.id ?? freshId("footing", new Set((kit.gates ?? []).map(gate => gate.id)));
  const stage: RunnerDocument = {
    kind: "runner",
    tilePx: 32,
    level: LEVEL,
    run: { left: side("left"), right: side("right"), speed: 7, accel: 60 },
    fall: { up: 52, down: 70, most: 22 },
    height: { by: "fixed" },
    gates: { footing },
  };
  return {
    ...kit,
    controls: [...kit.controls, ...made],
    ...(known ? {} : { gates: [...(kit.gates ?? []), { id: footing, name: "Footing" }] }),
    stage,
  };
}
