import type { Take } from "#core";
import type { GameFrame, Joined } from "./messages";

/** The frames of a link as they come, and the take they make. */
export interface LinkedTake {
  /** The number of frames so far, at the game's rate. */
  readonly frames: number;
  readonly add: (frame: GameFrame) => void;
  /** The moves that the game itself performed: the frame and the move's id, in order. */
  readonly acts: readonly Act[];
  /** Returns the take so far. It holds its own copies. */
  readonly toTake: (named: Pick<Take, "id" | "name" | "kit">) => Take;
}

/** A move that the game performed. `f` is in frames of the game. */
export interface Act {
  readonly f: number;
  readonly id: string;
}

type Pairs = [number, number][];

/** Appends a pair to the lane of an id, if its value differs from the last one. */
function append(lanes: Map<string, Pairs>, id: string, f: number, value: number): void {
  const lane = lanes.get(id) ?? [];
  lanes.set(id, lane);
  if ((lane.at(-1)?.[1] ?? 0) !== value) lane.push([f, value]);
}

const copyLanes = (lanes: ReadonlyMap<string, Pairs>) =>
  Object.fromEntries([...lanes].map(([id, lane]) => [id, lane.slice()]));

/** Returns the acts of a take by move: the frames of each. */
function groupActs(acts: readonly Act[]): Take["did"] & object {
  const byMove = new Map<string, number[]>();
  for (const { f, id } of acts) {
    const frames = byMove.get(id);
    if (frames) frames.push(f);
    else byMove.set(id, [f]);
  }
  return Object.fromEntries(byMove);
}

/** Returns what the game performed in a take, in order; empty if it reported nothing. */
export function actsOf(take: Take): Act[] {
  return Object.entries(take.did ?? {})
    .flatMap(([id, frames]) => frames.map(f => ({ f, id })))
    .sort((a, b) => a.f - b.f);
}

/**
 * Returns the moves of which a take knows whether the game performed them; undefined for all, as a live link reports every act of its
 * game. A recording has those that its mapping names.
 */
export function listReported({ did = {}, didOf }: Take): ReadonlySet<string> | undefined {
  return didOf === "listed" ? new Set(Object.keys(did)) : undefined;
}

/**
 * Creates an empty take of a game. Its gates are as the game sent them, so that the kit's stage has no part in it.
 * Under the rules that were in force it gives the events that the game got.
 */
export function createLinkedTake(game: Pick<Joined, "rate" | "player" | "device">): LinkedTake {
  const lanes = new Map<string, Pairs>();
  const gates = new Map<string, Pairs>();
  const speed: Pairs = [];
  const acts: Act[] = [];
  let frames = 0;
  return {
    get frames() {
      return frames;
    },
    add({ f, set, gates: opened, speed: percent, did = [] }) {
      frames = f + 1;
      for (const [id, value] of Object.entries(set ?? {})) append(lanes, id, f, Number(value));
      for (const [id, isOpen] of Object.entries(opened ?? {})) append(gates, id, f, isOpen ? 1 : 0);
      if (percent !== undefined && (speed.at(-1)?.[1] ?? 100) !== percent) speed.push([f, percent]);
      for (const { id } of did) acts.push({ f, id });
    },
    acts,
    toTake: named => ({
      format: "moss-tap/take",
      version: 1,
      ...named,
      rate: game.rate,
      frames,
      lanes: copyLanes(lanes),
      gates: copyLanes(gates) as Take["gates"] & object,
      ...(speed.length > 0 ? { speed: speed.slice() } : {}),
      ...(game.player === undefined ? {} : { player: game.player }),
      ...(game.device === undefined ? {} : { device: game.device }),
      ...(acts.length > 0 ? { did: groupActs(acts) } : {}),
      stage: "none",
    }),
  };
}
