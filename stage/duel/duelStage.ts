import { refsOf, type StageKind, type StageRow } from "../kind";
import { actOnDuel, compileDuel, createDuel, JACK_STATES, reportDuel, stepDuel } from "./duel";
import type { DuelProgram, DuelState } from "./duel";
import { DUEL_EFFECTS } from "./effects";
import { DUEL_DEFAULTS, duelSchema, type DuelDocument } from "./schema";

const OPPONENT = [
  { words: "startup", look: "startup" },
  { words: "active", look: "active" },
  { words: "recovery", look: "recovery" },
  { words: "guards", look: "named" },
  { words: "away", look: "named" },
  { words: "stunned", look: "named" },
] as const satisfies StageRow["states"];

/** The opponent's action on a frame. Its strike lands on its first active frame, and is over then. */
function opponentAt(track: ArrayLike<number>, at: number, before: number): number {
  const landed = (count: number) => before >= 0 && track[at + count]! > track[before + count]!;
  if (landed(3) || landed(4)) return 1;
  return track[at]! - 1;
}

/** The rows of the tape: the parts of the opponent's strikes, and the time for which the fighter parries. */
const ROWS: readonly StageRow[] = [
  { id: "opponent", name: "Opponent", states: OPPONENT, stateAt: opponentAt },
  {
    id: "parry",
    name: "Own parry",
    states: [{ words: "", look: "open" }],
    stateAt: (track, at) => (Math.floor(track[at + 6]! / 2) % 2 === 1 ? 0 : -1),
  },
];

/**
 * The stage of a fighter and a mechanical opponent. Its track: the opponent's action (an index into
 * JACK_STATES), the current blow, hits, blows taken, parries, whiffs, and bits for whether the fighter is
 * stunned, parries, and the game is stopped; then their distance in tiles.
 */
export const duelStage = {
  schema: duelSchema,
  refs: ({ gates }) => refsOf("gate", gates, ["gates"]),
  gates: ({ gates }) => Object.values(gates),
  effects: DUEL_EFFECTS,
  effectDefaults(document) {
    const { stun, guardStun, hitStop, reach, push, guardPush } = { ...DUEL_DEFAULTS, ...document };
    return { stun, guardStun, hitStop, reach, push, guardPush };
  },
  compile: compileDuel,
  create: createDuel,
  copy: duel => ({ ...duel }),
  carry: (duel, moved) => ({ ...duel, blow: moved.move(duel.blow) }),
  report: reportDuel,
  speed: (duel, speedPercent) => (duel.stopLeft > 0 ? 0 : speedPercent),
  act: actOnDuel,
  step: stepDuel,
  rows: ROWS,
  trackStride: 8,
  writeTrack(duel, track, at) {
    track[at] = JACK_STATES.indexOf(duel.jack);
    track[at + 1] = duel.blow;
    track[at + 2] = duel.hits;
    track[at + 3] = duel.taken;
    track[at + 4] = duel.parries;
    track[at + 5] = duel.whiffs;
    track[at + 6] = (duel.stunLeft > 0 ? 1 : 0) + (duel.isParrying ? 2 : 0) + (duel.stopLeft > 0 ? 4 : 0);
    track[at + 7] = duel.apart;
  },
} satisfies StageKind<DuelDocument, DuelProgram, DuelState>;
