import type { Kit } from "#core";
import { freshId } from "./freshId";

/** Returns a kit with one more mode with a unique name; the first one becomes the initial mode. */
export function addMode(kit: Kit): Kit {
  const modes = kit.modes ?? [];
  const names = new Set(modes.map(mode => mode.name));
  const name = ["Ground", "Air", "Water"].find(word => !names.has(word)) ?? `Mode ${modes.length + 1}`;
  return { ...kit, modes: [...modes, { id: freshId(name, new Set(modes.map(mode => mode.id))), name }] };
}

/**
 * Returns a kit without a mode, the switches to it and its name in the rules; rules left without any mode are
 * active in all.
 */
export function removeMode(kit: Kit, modeId: string): Kit {
  const without = <T extends { readonly modes?: readonly string[] }>(rule: T): T => {
    if (!rule.modes?.includes(modeId)) return rule;
    const modes = rule.modes.filter(id => id !== modeId);
    if (modes.length > 0) return { ...rule, modes };
    const { modes: none, ...rest } = rule;
    return rest as T;
  };
  const modes = (kit.modes ?? []).filter(mode => mode.id !== modeId);
  const switches = (kit.switches ?? []).filter(item => item.to !== modeId);
  const { modes: goneModes, switches: goneSwitches, start, ...rest } = kit;
  return {
    ...rest,
    ...(modes.length > 0 ? { modes } : {}),
    ...(switches.length > 0 ? { switches } : {}),
    ...(start !== undefined && start !== modeId && modes.length > 0 ? { start } : {}),
    patterns: kit.patterns.map(without),
    ...(kit.moves ? { moves: kit.moves.map(without) } : {}),
    ...(kit.prompts ? { prompts: kit.prompts.map(without) } : {}),
  };
}

/**
 * Returns a switch that the kit does not have yet: another gate or move, the other edge of the same gate, or
 * another target mode. Undefined if all exist.
 */
export function freshSwitch(kit: Kit): NonNullable<Kit["switches"]>[number] | undefined {
  const modes = kit.modes ?? [];
  const there = new Set((kit.switches ?? []).map(item => JSON.stringify(item.when)));
  const gates = (kit.gates ?? []).flatMap(gate =>
    (["open", "closed"] as const).map(turns => ({ gate: gate.id, turns })),
  );
  const whens = [...gates, ...(kit.moves ?? []).map(move => ({ move: move.id }))];
  const k = whens.findIndex(when => !there.has(JSON.stringify(when)));
  const used = (kit.switches ?? []).at(-1)?.to;
  const to = used === undefined ? modes[1] : (modes.find(mode => mode.id !== used) ?? modes[0]);
  return k < 0 || !to ? undefined : { when: whens[k]!, to: to.id };
}

/** Returns whether a rule is active in a mode; a rule without modes is active in all. */
export function isActiveIn(rule: { readonly modes?: readonly string[] }, modeId: string): boolean {
  return rule.modes === undefined || rule.modes.includes(modeId);
}

/** Activates or deactivates a pattern or move in a mode. If it is active in all, it names none. */
export function setActiveIn(
  kit: Kit,
  list: "patterns" | "moves" | "prompts",
  ruleId: string,
  modeId: string,
  isActive: boolean,
): Kit {
  const all = (kit.modes ?? []).map(mode => mode.id);
  const change = <T extends { readonly id: string; readonly modes?: readonly string[] }>(rule: T): T => {
    if (rule.id !== ruleId) return rule;
    const modes = all.filter(id => (id === modeId ? isActive : isActiveIn(rule, id)));
    if (modes.length < all.length) return { ...rule, modes };
    const { modes: every, ...rest } = rule;
    return rest as T;
  };
  return { ...kit, [list]: (kit[list] as readonly { readonly id: string }[] | undefined)?.map(change) };
}
