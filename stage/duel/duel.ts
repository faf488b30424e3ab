import { parseFrames, type Kit, type Program, type State } from "#core";
import type { Performed } from "../kind";
import { reportGate } from "../reportGate";
import { compileBlow, type Blow } from "./effects";
import { DUEL_DEFAULTS, type DuelDocument } from "./schema";

/** A compiled duel; lengths in frames of the kit, distances in tiles, speeds in tiles per frame. */
export interface DuelProgram {
  readonly kind: "duel";
  readonly script: readonly {
    readonly at: number;
    readonly does: "strike" | "guard" | "away";
    readonly frames: number;
  }[];
  readonly every: number;
  readonly startup: number;
  readonly active: number;
  readonly recovery: number;
  readonly stun: number;
  readonly hitStop: number;
  readonly guardStun: number;
  readonly outcome: number;
  readonly apart: number;
  readonly reach: number;
  readonly theirReach: number;
  readonly push: number;
  readonly guardPush: number;
  readonly back: number;
  readonly hitGate: number;
  readonly blockedGate: number;
  /** By the outcome of the fighter's own blow. */
  readonly ownGates: Readonly<Record<BlowOutcome, number>>;
  /** By move: its blow, with the frames of its own startup and active parts. */
  readonly blows: readonly (readonly Blow[])[];
}

/** The rounding that sums of parts of a frame, or of a tile, may have. */
const EPSILON = 1e-9;

/** The outcome of a blow of the fighter. */
export type BlowOutcome = "hit" | "blocked" | "missed";

/** The state of both bodies, in frames of the game clock; a fraction of a frame passes in slow motion. */
export interface DuelState {
  readonly kind: "duel";
  clock: number;
  /** The opponent's action, and its remaining time. */
  jack: "waits" | "startup" | "active" | "recovery" | "guard" | "away" | "reels";
  jackLeft: number;
  stunLeft: number;
  blockedLeft: number;
  stopLeft: number;
  parryLeft: number;
  /** Whether a strike of this frame was, or would have been, parried. */
  isParrying: boolean;
  /** The current blow: its move (−1 for none), frames until it lands, frames in which it can still land. */
  blow: number;
  blowIn: number;
  blowFor: number;
  /** The outcome of the last blow, and the remaining time of its gate. */
  outcome: BlowOutcome;
  outcomeLeft: number;
  /** The distance of both, in tiles, and its growth by a push, in tiles per frame, with the frames that remain of it. */
  apart: number;
  pushBy: number;
  pushLeft: number;
  hits: number;
  taken: number;
  parries: number;
  whiffs: number;
  force: number;
}

/** Compiles a duel from a stage document and the moves' effects. Ids the program lacks become −1. */
export function compileDuel(
  document: DuelDocument,
  kit: Kit,
  program: Program,
  effects: readonly (readonly Readonly<Record<string, unknown>>[])[],
): DuelProgram {
  const frames = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const gate = (id: string | undefined) =>
    id === undefined ? -1 : program.gates.findIndex(item => item.id === id);
  const { outcome, guardStun, back, ...space } = { ...DUEL_DEFAULTS, ...document };
  return {
    kind: "duel",
    script: document.script.map(item => ({
      at: frames(item.at),
      does: item.does,
      frames: item.for === undefined ? 30 : frames(item.for),
    })),
    every: Math.max(1, frames(document.every)),
    startup: frames(document.strike.startup),
    active: frames(document.strike.active),
    recovery: frames(document.strike.recovery),
    stun: frames(document.stun),
    hitStop: frames(document.hitStop),
    guardStun: frames(guardStun),
    outcome: frames(outcome),
    apart: space.apart,
    reach: space.reach,
    theirReach: document.strike.reach ?? DUEL_DEFAULTS.reach,
    push: space.push,
    guardPush: space.guardPush,
    back: back / kit.rate,
    hitGate: gate(document.gates.hit),
    blockedGate: gate(document.gates.blocked),
    ownGates: {
      hit: gate(document.gates.ownHit),
      blocked: gate(document.gates.ownBlocked),
      missed: gate(document.gates.ownMissed),
    },
    blows: effects.map((list, m) =>
      list.flatMap(effect => compileBlow(effect, program.moves[m]!, kit.rate) ?? []),
    ),
  };
}

/** Creates both bodies before frame 0, at their distance. */
export function createDuel({ apart }: DuelProgram): DuelState {
  return {
    kind: "duel",
    clock: -1,
    jack: "waits",
    jackLeft: 0,
    stunLeft: 0,
    blockedLeft: 0,
    stopLeft: 0,
    parryLeft: 0,
    isParrying: false,
    blow: -1,
    blowIn: 0,
    blowFor: 0,
    outcome: "missed",
    outcomeLeft: 0,
    apart,
    pushBy: 0,
    pushLeft: 0,
    hits: 0,
    taken: 0,
    parries: 0,
    whiffs: 0,
    force: 0,
  };
}

/** The action of each effect; a missing one does not compile. */
const ACTS: Readonly<Record<Blow["does"], (duel: DuelState, blow: Blow, move: number) => void>> = {
  strike(duel, { startup, active, amount }, move) {
    if (duel.blow >= 0) duel.whiffs++;
    duel.blow = move;
    duel.blowIn = startup;
    duel.blowFor = active;
    duel.force = amount;
  },
  parry(duel, { frames }) {
    duel.parryLeft = frames;
  },
};

/** Starts the effect of a performed move; a current blow that has not landed counts as a whiff. */
export function actOnDuel(program: DuelProgram, duel: DuelState, { move }: Performed): void {
  for (const blow of program.blows[move]!) ACTS[blow.does](duel, blow, move);
}

function turnJack(duel: DuelState, jack: DuelState["jack"], frames: number): void {
  duel.jack = jack;
  duel.jackLeft = frames;
}

/** Advances the opponent: its next action when its time is up, and actions of the script. */
function stepJack(program: DuelProgram, duel: DuelState, passed: number): void {
  if (duel.jackLeft > 0) {
    duel.jackLeft -= passed;
    if (duel.jackLeft > EPSILON) return;
    if (duel.jack === "startup") return turnJack(duel, "active", program.active);
    if (duel.jack === "active") return turnJack(duel, "recovery", program.recovery);
    turnJack(duel, "waits", 0);
  }
  const now = duel.clock % program.every;
  for (const item of program.script) {
    if (now < item.at || now - passed >= item.at) continue;
    if (item.does === "strike") turnJack(duel, "startup", program.startup);
    else turnJack(duel, item.does, item.frames);
  }
}

/**
 * Pushes both apart, evenly over the frames of a stun, at once where there is none; the rest of an earlier push is added.
 */
function pushApart(duel: DuelState, tiles: number, frames: number): void {
  if (tiles === 0) return;
  const takes = Math.max(1, frames);
  duel.pushBy = (tiles + duel.pushBy * duel.pushLeft) / takes;
  duel.pushLeft = takes;
}

/**
 * Moves both: apart while a push lasts, else to their distance while the opponent waits, also to one that the designer has changed
 * meanwhile.
 */
function moveApart(program: DuelProgram, duel: DuelState, passed: number): void {
  if (duel.pushLeft > 0) {
    const frames = Math.min(passed, duel.pushLeft);
    duel.apart += duel.pushBy * frames;
    duel.pushLeft -= frames;
    if (duel.pushLeft < EPSILON) duel.pushLeft = 0;
  } else if (duel.jack === "waits" && duel.apart !== program.apart) {
    const way = program.back * passed;
    duel.apart += Math.max(-way, Math.min(way, program.apart - duel.apart));
  }
}

/** Returns whether something that reaches so many tiles reaches the other. */
const isWithin = (duel: DuelState, reach: number): boolean => duel.apart <= reach + EPSILON;

/** Lands the opponent's strike once, unless it is parried. */
function strikeFighter(program: DuelProgram, duel: DuelState): void {
  if (duel.parryLeft > 0) {
    duel.parries++;
    duel.blockedLeft = program.stun;
    turnJack(duel, "reels", program.stun * 2);
  } else {
    duel.taken++;
    duel.stunLeft = program.stun;
    pushApart(duel, program.push, program.stun);
    duel.blow = -1;
    turnJack(duel, "recovery", program.recovery);
  }
  duel.stopLeft = program.hitStop;
}

/** Ends the fighter's blow with an outcome, whose gate opens. */
function endBlow({ outcome }: DuelProgram, duel: DuelState, became: BlowOutcome): void {
  duel.blow = -1;
  duel.outcome = became;
  duel.outcomeLeft = outcome;
}

/** Lands the fighter's blow on an opponent within reach, whose guard blocks it. */
function stepBlow(program: DuelProgram, duel: DuelState, passed: number): void {
  if (duel.blow < 0) return;
  const own = program.blows[duel.blow]?.find(({ does }) => does === "strike");
  if (duel.blowIn > 0) {
    duel.blowIn -= passed;
    if (duel.blowIn > EPSILON) return;
  }
  const isReached = duel.jack !== "away" && isWithin(duel, own?.reach ?? program.reach);
  if (isReached && duel.jack === "guard") {
    const stun = own?.guardStun ?? program.guardStun;
    duel.jackLeft = Math.max(duel.jackLeft, stun);
    pushApart(duel, own?.guardPush ?? program.guardPush, stun);
    return endBlow(program, duel, "blocked");
  }
  if (isReached) {
    const stun = own?.stun ?? program.stun;
    duel.hits++;
    duel.stopLeft = own?.hitStop ?? program.hitStop;
    if (duel.jack === "waits" || duel.jack === "startup") turnJack(duel, "reels", stun);
    pushApart(duel, own?.push ?? program.push, stun);
    return endBlow(program, duel, "hit");
  }
  duel.blowFor -= passed;
  if (duel.blowFor > EPSILON) return;
  duel.whiffs++;
  endBlow(program, duel, "missed");
}

/** Steps one frame of the duel. During hit stop only the hit stop advances. */
export function stepDuel(
  program: DuelProgram,
  duel: DuelState,
  { speedPercent }: Pick<State, "speedPercent">,
): void {
  if (duel.stopLeft > 0) {
    duel.stopLeft--;
    return;
  }
  const passed = speedPercent / 100;
  if (passed === 0) return;
  duel.clock += passed;
  duel.stunLeft = Math.max(0, duel.stunLeft - passed);
  duel.blockedLeft = Math.max(0, duel.blockedLeft - passed);
  duel.outcomeLeft = Math.max(0, duel.outcomeLeft - passed);
  moveApart(program, duel, passed);
  stepJack(program, duel, passed);
  if (duel.jack === "active" && isWithin(duel, program.theirReach)) strikeFighter(program, duel);
  else stepBlow(program, duel, passed);
  duel.isParrying = duel.parryLeft > 0;
  duel.parryLeft = Math.max(0, duel.parryLeft - passed);
}

/** Opens and closes the gates for being hit, for having blocked, and for what became of the fighter's own blow. */
export function reportDuel(program: DuelProgram, duel: DuelState, state: State): void {
  const { ownGates } = program;
  const outcome = duel.outcomeLeft > 0 ? duel.outcome : undefined;
  reportGate(state, program.hitGate, duel.stunLeft > 0);
  reportGate(state, program.blockedGate, duel.blockedLeft > 0);
  reportGate(state, ownGates.hit, outcome === "hit");
  reportGate(state, ownGates.blocked, outcome === "blocked");
  reportGate(state, ownGates.missed, outcome === "missed");
}

/** The opponent's actions, by their number in a track. */
export const JACK_STATES = ["waits", "startup", "active", "recovery", "guard", "away", "reels"] as const;
