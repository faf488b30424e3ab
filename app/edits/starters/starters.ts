import { PATTERN_KINDS, recordOf, type Kit, type Move, type PatternKind, type Starter } from "#core";
import { stageOf } from "#stage";
import { freshId } from "../edits";
import { WINDOW_STARTERS } from "./windows";

const KINDS = Object.keys(PATTERN_KINDS) as PatternKind[];
const ALL: readonly Starter[] = [...WINDOW_STARTERS, ...KINDS.flatMap(kind => recordOf(kind).starters)];

/** What is asked for most comes first; what is not named here comes after, in the order of the kinds. */
const FIRST: readonly string[] = [
  "early",
  "late",
  "hold",
  "tap-or-hold",
  "charge",
  "double",
  "chain",
  "chord",
  "motion",
  "mash",
  "prompt",
];

const placeOf = ({ id }: Starter) => (FIRST.includes(id) ? FIRST.indexOf(id) : FIRST.length);

/** Every way to begin a rule. */
export const STARTERS: readonly Starter[] = [...ALL].sort((a, b) => placeOf(a) - placeOf(b));

/** Rules with names that none of those there has: a second one of a name is called 2, and so on. */
function nameApart<T extends { readonly name: string }>(
  there: readonly T[] | undefined,
  added: readonly T[] | undefined,
): readonly T[] {
  const names = new Set((there ?? []).map(item => item.name));
  return (added ?? []).map(item => {
    let name = item.name;
    for (let n = 2; names.has(name); n++) name = `${item.name} ${n}`;
    names.add(name);
    return name === item.name ? item : { ...item, name };
  });
}

/** Moves that do nothing on a stage yet strike in a duel: what is tried there shall be felt. */
function armForStage(kit: Kit, moves: readonly Move[]): readonly Move[] {
  if (stageOf(kit)?.kind !== "duel") return moves;
  return moves.map(move => (move.effect === undefined ? { ...move, effect: { strike: 5 } } : move));
}

/** Adds the rules of a starter to a kit. Gives the kit and the key of the rule to open. */
export function applyStarter(kit: Kit, starter: Starter, controlId: string): { kit: Kit; opens: string } {
  const control = kit.controls.find(item => item.id === controlId) ?? kit.controls[0];
  if (!control) return { kit, opens: "" };
  const taken: Record<string, Set<string>> = {
    control: new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id)),
    gate: new Set((kit.gates ?? []).map(item => item.id)),
    pattern: new Set(kit.patterns.map(item => item.id)),
    move: new Set((kit.moves ?? []).map(item => item.id)),
    prompt: new Set((kit.prompts ?? []).map(item => item.id)),
  };
  const take = (kind: string, name: string) => {
    const id = freshId(name, taken[kind]!);
    taken[kind]!.add(id);
    return id;
  };
  const bundle = starter.make(control, take, kit);
  const grown = <T extends { readonly name: string }>(
    was: readonly T[] | undefined,
    more: readonly T[] | undefined,
  ) => (more && more.length > 0 ? [...(was ?? []), ...nameApart(was, more)] : was);
  const lists = {
    sticks: grown(kit.sticks, bundle.sticks),
    gates: grown(kit.gates, bundle.gates),
    moves: grown(kit.moves, armForStage(kit, bundle.moves ?? [])),
    prompts: grown(kit.prompts, bundle.prompts),
  };
  const present = Object.fromEntries(Object.entries(lists).filter(([, list]) => list !== undefined));
  return {
    kit: {
      ...kit,
      ...present,
      controls: grown(kit.controls, bundle.controls)!,
      patterns: [...kit.patterns, ...nameApart(kit.patterns, bundle.patterns)],
    },
    opens: bundle.opens,
  };
}

/** A move on the first pattern, or a plain gate, as a start for a rule that no starter brings. */
export function addPlain(kit: Kit, what: "move" | "gate"): { kit: Kit; opens: string } {
  if (what === "gate") {
    const gates = kit.gates ?? [];
    const id = freshId("gate", new Set(gates.map(gate => gate.id)));
    return {
      kit: { ...kit, gates: [...gates, { id, name: `Gate ${gates.length + 1}` }] },
      opens: `gate:${id}`,
    };
  }
  const moves = kit.moves ?? [];
  const pattern = kit.patterns[0];
  if (!pattern) return { kit, opens: "" };
  const id = freshId("move", new Set(moves.map(move => move.id)));
  const move = { id, name: `Move ${moves.length + 1}`, pattern: pattern.id };
  return { kit: { ...kit, moves: [...moves, move] }, opens: `move:${id}` };
}
