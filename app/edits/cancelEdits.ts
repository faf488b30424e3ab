import { parseFrames, type Gate, type Kit, type Move } from "#core";
import { DUEL_DEFAULTS, duelOf, type Blow } from "#stage";
import { freshId } from "./freshId";
import { idsUnder, NAMING_FIELDS } from "./ruleEdits";

/** When a move may follow another: whatever became of the first, or only after one outcome of its blow. */
export type FollowWhen = "any" | Blow;

/** A window in which a move may follow another: lengths as in a kit, counted from the first one's performance. */
export interface FollowWindow {
  readonly when: FollowWhen;
  readonly from: string;
  readonly to: string;
}

/** The gates of a duel for the outcomes of the own blow: their field in the stage, and their names. */
const OUTCOMES = {
  hit: { field: "ownHit", name: "Own blow hit" },
  guard: { field: "ownBlocked", name: "Own blow blocked" },
  miss: { field: "ownMissed", name: "Own blow missed" },
} as const satisfies Readonly<Record<Blow, object>>;

const isOutcome = (blow: string): blow is Blow => Object.hasOwn(OUTCOMES, blow);

type Ids = Set<string>;

const idsOf = (kit: Kit): Ids => new Set((kit.gates ?? []).map(({ id }) => id));

/** Returns a gate with an id made of its name, which is taken from then on. */
function nameGate(ids: Ids, name: string, rest: Partial<Gate> = {}): Gate {
  const id = freshId(name, ids);
  ids.add(id);
  return { id, name, ...rest };
}

/** Returns the gates that a gate is open for: itself, and the sources of an `any` or `all`, in depth. */
function sourcesOf(kit: Kit, id: string, seen: Ids = new Set()): Ids {
  if (seen.has(id)) return seen;
  seen.add(id);
  const gate = kit.gates?.find(item => item.id === id);
  for (const source of [...(gate?.any ?? []), ...(gate?.all ?? [])]) sourcesOf(kit, source, seen);
  return seen;
}

/**
 * Returns, for each move of a kit, the index in its `opens` of the window in which a move may follow it: one whose gate lets
 * the other begin; −1 if there is none. `second` is the index of the move that follows.
 */
export function findFollowWindows(kit: Kit, second: number): readonly number[] {
  const lets = new Set((kit.moves![second]!.needs ?? []).flatMap(({ gate }) => [...sourcesOf(kit, gate)]));
  return kit.moves!.map(({ opens = [] }) => opens.findIndex(({ gate }) => lets.has(gate)));
}

/** Returns the same for one first move. */
export const findFollowWindow = (kit: Kit, first: number, second: number): number =>
  findFollowWindows(kit, second)[first]!;

/** Returns a length as it is written, or the number of frames if that is more. */
function atLeast(kit: Kit, written: string, frames: number): string {
  return (parseFrames(written, kit.rate, "atLeast") ?? 0) >= frames ? written : `${frames}f`;
}

/**
 * Returns the kit with a gate for an outcome of the own blow that stays open for a number of frames at least, and its id;
 * undefined without a duel.
 */
function withOutcome(
  kit: Kit,
  ids: Ids,
  blow: Blow,
  frames: number,
): { readonly kit: Kit; readonly gate: string } | undefined {
  const before = duelOf(kit);
  if (!before) return undefined;
  const stage = { ...before, outcome: atLeast(kit, before.outcome ?? DUEL_DEFAULTS.outcome, frames) };
  const { field, name } = OUTCOMES[blow];
  const known = stage.gates[field];
  if (known !== undefined) return { kit: { ...kit, stage }, gate: known };
  const gate = nameGate(ids, name);
  return {
    kit: {
      ...kit,
      gates: [gate, ...(kit.gates ?? [])],
      stage: { ...stage, gates: { ...stage.gates, [field]: gate.id } },
    },
    gate: gate.id,
  };
}

const busyGate = ({ slot = "main" }: Move) => `busy:${slot}`;

/** Replaces one move of a kit. */
const withMove = (kit: Kit, index: number, move: Move): Kit => ({
  ...kit,
  moves: kit.moves!.map((item, m) => (m === index ? move : item)),
});

/** Returns whether some move opens a gate for a part of its timeline. */
const isWindow = (kit: Kit, gate: string) =>
  kit.moves!.some(({ opens = [] }) => opens.some(item => item.gate === gate));

/** Returns whether a gate is open for one of several reasons, or for a part of a move. */
const isChoice = (kit: Kit, gate: string) =>
  isWindow(kit, gate) || kit.gates?.find(({ id }) => id === gate)?.any !== undefined;

/** Returns a kit whose derived gates are below those that they name; gates keep their order apart from that. */
function orderGates(kit: Kit): Kit {
  const left = [...(kit.gates ?? [])];
  const ids = new Set(left.map(({ id }) => id));
  const placed: Gate[] = [];
  const done: Ids = new Set();
  while (left.length > 0) {
    const ready = left.findIndex(gate =>
      idsUnder(gate, NAMING_FIELDS.gates).every(id => !ids.has(id) || done.has(id)),
    );
    // Gates that name each other are a fault of the kit, and stay where they are.
    const [gate] = left.splice(Math.max(0, ready), 1);
    placed.push(gate!);
    done.add(gate!.id);
  }
  return { ...kit, gates: placed };
}

/** Returns a kit in which a gate lets a move begin, besides what lets it begin now. */
function letBegin(kit: Kit, ids: Ids, second: number, busy: string, gate: string): Kit {
  const move = kit.moves![second]!;
  const gates = kit.gates ?? [];
  const name = move.name || move.id;
  const needed = (move.needs ?? []).findIndex(need => isChoice(kit, need.gate));
  const choice = needed < 0 ? undefined : gates.find(({ id }) => id === move.needs![needed]!.gate);
  if (choice?.any) {
    const wider = { ...choice, any: [...choice.any, gate] };
    return { ...kit, gates: gates.map(item => (item === choice ? wider : item)) };
  }
  if (choice) {
    const either = nameGate(ids, `${name} may begin`, { any: [choice.id, gate] });
    const needs = move.needs!.map((need, k) => (k === needed ? { ...need, gate: either.id } : need));
    return withMove({ ...kit, gates: [...gates, either] }, second, { ...move, needs });
  }
  const free = nameGate(ids, `${name}: nothing runs`, { none: [busy] });
  const either = nameGate(ids, `${name} may begin`, { any: [free.id, gate] });
  const { bans = [], ...rest } = move;
  const left = bans.filter(ban => ban !== busy);
  return withMove({ ...kit, gates: [...gates, free, either] }, second, {
    ...rest,
    needs: [...(move.needs ?? []), { gate: either.id }],
    ...(left.length > 0 && { bans: left }),
  });
}

/**
 * Returns a kit in which a move may follow another within a window: the first opens a gate there, alone or together with the
 * gate of an outcome of its blow, and the second begins with it or as it does now. A second one that waits until nothing
 * runs there begins then, too. The gates of outcomes stay open up to the end of the window at least. The kit is returned as it is without a duel if an outcome
 * is asked for, and if nothing holds the second one back (see `isHeldBack`).
 */
export function letFollow(kit: Kit, first: number, second: number, { when, from, to }: FollowWindow): Kit {
  if (!isHeldBack(kit, first, second)) return kit;
  const ids = idsOf(kit);
  const [one, two] = [kit.moves![first]!, kit.moves![second]!];
  const framesOf = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  // The outcome is known on the first active frame at the earliest.
  const needed = framesOf(to) - framesOf(one.frames?.startup ?? "0f") + 1;
  const outcome = isOutcome(when) ? withOutcome(kit, ids, when, needed) : undefined;
  if (isOutcome(when) && !outcome) return kit;
  const base = outcome?.kit ?? kit;
  const name = `${two.name || two.id} may follow ${one.name || one.id}`;
  const window = nameGate(ids, name);
  const both = outcome && nameGate(ids, `${name} on a ${when}`, { all: [window.id, outcome.gate] });
  const opened = withMove(
    { ...base, gates: [...(base.gates ?? []), window, ...(both ? [both] : [])] },
    first,
    { ...one, opens: [...(one.opens ?? []), { gate: window.id, from, to }] },
  );
  return orderGates(letBegin(opened, ids, second, busyGate(one), (both ?? window).id));
}

/** Returns a kit in which a move is banned while another, or any move in its slot, runs. */
export function waitUntilFree(kit: Kit, first: number, second: number): Kit {
  const move = kit.moves![second]!;
  return withMove(kit, second, { ...move, bans: [...(move.bans ?? []), busyGate(kit.moves![first]!)] });
}

/**
 * Returns whether something keeps a move from following another at any time, so that a window can let it: it is banned while
 * the other runs, or needs a gate that opens for a part of a move or for one of several reasons.
 */
export function isHeldBack(kit: Kit, first: number, second: number): boolean {
  const { bans = [], needs = [] } = kit.moves![second]!;
  return bans.includes(busyGate(kit.moves![first]!)) || needs.some(({ gate }) => isChoice(kit, gate));
}

/** Returns a kit in which a move may no longer follow another: the window and what was made of it are removed. */
export function endFollow(kit: Kit, first: number, second: number): Kit {
  const at = findFollowWindow(kit, first, second);
  if (at < 0) return kit;
  const one = kit.moves![first]!;
  const { gate } = one.opens![at]!;
  const { opens, ...rest } = one;
  const left = opens!.filter((_, k) => k !== at);
  const closed = withMove(kit, first, left.length > 0 ? { ...rest, opens: left } : rest);
  return dropGate(closed, gate);
}

/** Removes a gate that nothing opens any more, with what was made of it; one that is named elsewhere stays. */
function dropGate(kit: Kit, id: string): Kit {
  const gates = (kit.gates ?? []).filter(gate => gate.id !== id);
  const others = gates.map(({ any: _any, all: _all, ...rest }) => rest);
  const { gates: _gates, ...besides } = kit;
  if (idsUnder([besides, others], NAMING_FIELDS.gates).includes(id)) return kit;
  const dead = gates.filter(
    ({ all, any }) => all?.includes(id) === true || (any?.length === 1 && any[0] === id),
  );
  const kept = gates.map(gate =>
    gate.any?.includes(id) === true && !dead.includes(gate)
      ? { ...gate, any: gate.any.filter(source => source !== id) }
      : gate,
  );
  const without: Kit = { ...kit, gates: kept };
  // A gate that needed it can no longer open; it is kept if it is named, and then never does.
  return dead.reduce((now, gate) => dropGate(now, gate.id), without);
}
