import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";

/** The complete input of a take, computed in advance: by id, one entry per frame. */
export interface Input {
  readonly frames: number;
  /** Cleaned states of the controls. */
  readonly down: Readonly<Record<string, readonly boolean[]>>;
  readonly painted: Readonly<Record<string, readonly boolean[]>>;
  /** The game clock, in hundredths of a frame, and the real one. */
  readonly game: readonly number[];
  readonly real: readonly number[];
}

type Pairs = readonly (readonly [number, number])[];

/** Returns the last value at or before each frame, of pairs read at the kit's rate. */
function laneOf(pairs: Pairs, scale: number, frames: number, first: number): number[] {
  const values = new Array<number>(frames).fill(first);
  for (const [x, value] of pairs) {
    const landed = Math.ceil(x * scale - 1e-6);
    for (let f = Math.max(0, landed); f < frames; f++) values[f] = value;
  }
  return values;
}

/** Returns the states of one control; each change is at least a frame after the previous one. */
function statesOf(
  pairs: Pairs,
  scale: number,
  frames: number,
  pressAt: number,
  releaseAt: number,
): boolean[] {
  const states = new Array<boolean>(frames).fill(false);
  let isDown = false;
  let lastChange = -Infinity;
  for (const [x, value] of pairs) {
    const next: boolean = isDown ? value >= releaseAt : value >= pressAt;
    if (next === isDown) continue;
    const landed = Math.max(Math.ceil(x * scale - 1e-6), lastChange + 1, 0);
    isDown = next;
    lastChange = landed;
    for (let f = landed; f < frames; f++) states[f] = isDown;
  }
  return states;
}

function pressBefore(states: readonly boolean[], f: number): number {
  let p = f;
  while (p > 0 && states[p - 1]) p--;
  return p;
}

/** Cleans two opposite controls on frames on which both are down. */
function cleanPair(a: boolean[], b: boolean[], opposites: string): void {
  const rawA = [...a];
  const rawB = [...b];
  for (let f = 0; f < a.length; f++) {
    if (!rawA[f] || !rawB[f]) continue;
    const since = pressBefore(rawA, f) - pressBefore(rawB, f);
    const keepsA = since !== 0 && (opposites === "latest" ? since > 0 : opposites === "first" && since < 0);
    const keepsB = since !== 0 && (opposites === "latest" ? since < 0 : opposites === "first" && since > 0);
    a[f] = keepsA;
    b[f] = keepsB;
  }
}

/** Computes the input of every frame. */
export function readInput(kit: Kit, take: Take): Input {
  const scale = kit.rate / take.rate;
  const frames = Math.ceil(take.frames * scale - 1e-6);
  const down: Record<string, boolean[]> = {};
  for (const control of kit.controls) {
    const pairs = take.lanes[control.id] ?? [];
    const pressAt = control.pressAt ?? 0.5;
    down[control.id] = statesOf(pairs, scale, frames, pressAt, control.releaseAt ?? Math.min(0.4, pressAt));
  }
  for (const stick of kit.sticks ?? []) {
    cleanPair(down[stick.up]!, down[stick.down]!, stick.opposites ?? "neutral");
    cleanPair(down[stick.left]!, down[stick.right]!, stick.opposites ?? "neutral");
  }
  const painted: Record<string, boolean[]> = {};
  for (const [id, pairs] of Object.entries(take.gates ?? {}))
    painted[id] = laneOf(pairs, scale, frames, 0).map(value => value === 1);
  const speed = laneOf(take.speed ?? [], scale, frames, 100);
  const game: number[] = [];
  const real: number[] = [];
  for (let f = 0; f < frames; f++) {
    game.push(f === 0 ? 0 : game[f - 1]! + speed[f]!);
    real.push(100 * f);
  }
  return { frames, down, painted, game, real };
}
