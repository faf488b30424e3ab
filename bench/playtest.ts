import type { Check, Take } from "#core";
import { createChance } from "./scenes";

/** A playtest of Belfry Runner: takes of a minute, and checks that apply to all of them. */
export const FRAMES = 3600;

/** Returns a random minute of running and leaping, drawn from a seed. */
export function drawTake(k: number, kitId: string): Take {
  const chance = createChance(k + 1);
  const presses = (every: number): [number, number][] => {
    const lane: [number, number][] = [];
    for (let f = Math.floor(chance() * every); f < FRAMES - 30;) {
      const held = 3 + Math.floor((chance() * every) / 2);
      lane.push([f, 1], [f + held, 0]);
      f += held + 1 + Math.floor(chance() * every);
    }
    return lane;
  };
  return {
    format: "moss-tap/take",
    version: 1,
    id: `take-${k}`,
    name: `Take ${k}`,
    kit: kitId,
    rate: 60,
    frames: FRAMES,
    player: `player-${k % 12}`,
    lanes: { right: [[0, 1]], leap: presses(40), brace: presses(160), crouch: presses(300) },
  };
}

const asks = ["hop", "second-hop", "spring", "ring", "scurry"];
export const CHECKS = Array.from({ length: 40 }, (_, k): Check => {
  const id = asks[k % asks.length]!;
  const base = { id: `c${k}`, name: `Check ${k}`, on: "*" as const };
  if (k % 4 === 0) return { ...base, answers: "leap", within: `${k % 9}f` };
  if (k % 4 === 1) return { ...base, counts: { kind: "performed", id }, min: 1, max: 90 };
  if (k % 4 === 2) return { ...base, never: { kind: "lost", id, why: ["late", "uses"] } };
  return {
    ...base,
    order: [
      { kind: "performed", id: "hop" },
      { kind: "performed", id },
    ],
  };
});
