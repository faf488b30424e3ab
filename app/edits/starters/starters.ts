import {
  parseFrames,
  PATTERN_KINDS,
  recordOf,
  type Kit,
  type Move,
  type Pattern,
  type PatternKind,
  type Starter,
} from "#core";
import { stageOf } from "#stage";
import { freshId } from "../freshId";
import { WINDOW_STARTERS } from "./windows";

const KINDS = Object.keys(PATTERN_KINDS) as PatternKind[];
const ALL: readonly Starter[] = [...WINDOW_STARTERS, ...KINDS.flatMap(kind => recordOf(kind).starters)];

/** The most common starters, in display order; the others follow in the order of the kinds. */
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

/** Every starter of a rule. */
export const STARTERS: readonly Starter[] = [...ALL].sort((a, b) => placeOf(a) - placeOf(b));

/** Returns rules with unique names: a duplicate is called 2, and so on. */
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

/**
 * Returns moves that strike in a duel if they have no effect yet, so that a new rule has a visible effect.
 */
function armForStage(kit: Kit, moves: readonly Move[]): readonly Move[] {
  if (stageOf(kit)?.kind !== "duel") return moves;
  return moves.map(move => (move.effect === undefined ? { ...move, effect: { strike: 5 } } : move));
}

/** Adds the rules of a starter to a kit. Returns the kit and the key of the rule to open. */
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

/**
 * Adds a move that can follow another, in its slot and on its pattern: the first opens a gate for it while it
 * runs, a press for it is buffered, and it has priority over moves that start a chain. Returns undefined for
 * a move without a timeline.
 */
export function addFollowing(kit: Kit, place: number): { kit: Kit; opens: string } | undefined {
  const before = kit.moves?.[place];
  if (!before?.frames) return undefined;
  const frames = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const { startup, active, recovery } = before.frames;
  const whole = frames(startup) + frames(active) + frames(recovery);
  const from = Math.max(1, frames(startup) + Math.ceil(frames(active) / 2));
  const moves = kit.moves!;
  const names = new Set(moves.map(move => move.name));
  let name = `After ${before.name}`;
  for (let n = 2; names.has(name); n++) name = `After ${before.name} ${n}`;
  const id = freshId(name, new Set(moves.map(move => move.id)));
  const gates = kit.gates ?? [];
  const gateName = `${name} may follow`;
  const gate = { id: freshId(gateName, new Set(gates.map(item => item.id))), name: gateName };
  const { opens = [], needs, bans, cooldown, uses, spends, when, ...rest } = before;
  const opening = { gate: gate.id, from: `${from}f`, to: `${Math.max(from + 1, whole - 1)}f` };
  const following: Move = {
    ...rest,
    id,
    name,
    needs: [{ gate: gate.id }],
    buffer: before.buffer ?? "8f",
    priority: (before.priority ?? 0) + 1,
  };
  const widened = moves.map((move, m) => (m === place ? { ...move, opens: [...opens, opening] } : move));
  return {
    kit: {
      ...kit,
      gates: [...gates, gate],
      moves: [...widened.slice(0, place + 1), following, ...widened.slice(place + 1)],
    },
    opens: `move:${id}`,
  };
}

/**
 * Returns the pattern a rule belongs to, by its key: itself, a move's pattern, a prompt's first; otherwise
 * the kit's first.
 */
export function patternAbout(kit: Kit, key: string | null): Pattern | undefined {
  const [kind, ...rest] = (key ?? "").split(":");
  const id = rest.join(":");
  const move = kit.moves?.find(item => item.id === id);
  const prompt = kit.prompts?.find(item => item.id === id);
  const about = kind === "move" ? move?.pattern : kind === "prompt" ? prompt?.ask[0] : id;
  return kit.patterns.find(pattern => pattern.id === about) ?? kit.patterns[0];
}

/** Adds a move on the open pattern, or a plain gate: rules without a starter. */
export function addPlain(
  kit: Kit,
  what: "move" | "gate",
  openKey: string | null = null,
): { kit: Kit; opens: string } {
  if (what === "gate") {
    const gates = kit.gates ?? [];
    const id = freshId("gate", new Set(gates.map(gate => gate.id)));
    return {
      kit: { ...kit, gates: [...gates, { id, name: `Gate ${gates.length + 1}` }] },
      opens: `gate:${id}`,
    };
  }
  const moves = kit.moves ?? [];
  const pattern = patternAbout(kit, openKey);
  if (!pattern) return { kit, opens: "" };
  const id = freshId("move", new Set(moves.map(move => move.id)));
  const move = { id, name: `Move ${moves.length + 1}`, pattern: pattern.id };
  return { kit: { ...kit, moves: [...moves, move] }, opens: `move:${id}` };
}
