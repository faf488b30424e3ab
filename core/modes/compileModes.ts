import { fault } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { ModeProgram, SwitchProgram } from "../program/program";

/** Compiles the modes, the initial mode (the first if none is named) and the switches between them. */
export function compileModes(names: Names): {
  modes: ModeProgram[];
  startMode: number;
  switches: SwitchProgram[];
} {
  const { kit, issues } = names;
  const modes = (kit.modes ?? []).map(mode => ({ id: mode.id, carry: mode.carry ?? false }));
  if (kit.start !== undefined && modes.length === 0) issues.push(fault("start-without-modes", ["start"]));
  const startMode = kit.start === undefined || modes.length === 0 ? 0 : names.mode(kit.start, ["start"]);
  const switches = (kit.switches ?? []).map((change, k): SwitchProgram => {
    const to = names.mode(change.to, ["switches", k, "to"]);
    if ("move" in change.when) {
      return {
        gate: -1,
        turnsOpen: false,
        move: names.move(change.when.move, ["switches", k, "when", "move"]),
        to,
      };
    }
    const gate = names.gate(change.when.gate, ["switches", k, "when", "gate"]);
    return { gate, turnsOpen: change.when.turns === "open", move: -1, to };
  });
  return { modes, startMode, switches };
}
