import { dequal } from "dequal";
import type { Character, Kit, SweepQuestion as SweptValues } from "#core";
import { useStudySettings, useStudying } from "../../document/studiesContext";
import { useDocument } from "../../document/workbenchContext";
import {
  OWN_HANDS,
  type DrawnSweep,
  type SweepRange,
  type SweptChoice,
  type TakeGroups,
} from "../../document/studySettings";
import { listCharacters, withAims } from "../model/characters";
import { firstRange, firstSwept, listSwept, listValues } from "../model/sweptNumbers";
import { useGroups } from "../useGroups";

/** The maximum number of values of one number, and of each of two. */
const VALUES_OF_ONE = 41;
const VALUES_OF_TWO = 21;
/** A sweep of one number is shared by two workers. */
const HALVES = [0, 1] as const;

/** Divides a sweep of one number: each worker plays half of the repetitions or, without any, tries every other value. */
function halve(sweep: SweptValues): SweptValues[] {
  const { hands, values } = sweep;
  return HALVES.flatMap((half): SweptValues[] => {
    if (!hands || hands.count === 1) {
      const own = values.filter((_, k) => k % HALVES.length === half);
      return own.length > 0 ? [{ ...sweep, values: own }] : [];
    }
    const first = Math.ceil(hands.count / 2);
    const { seed, count } = hands;
    const own = half === 0 ? { count: first } : { seed: seed + first, count: count - first };
    return [{ ...sweep, hands: { ...hands, ...own } }];
  });
}

/** The question of a sweep: its numbers, their ranges, and the character that repeats the takes. */
export interface SweepQuestion {
  readonly choices: readonly SweptChoice[];
  readonly choice: SweptChoice;
  readonly two: SweptChoice | undefined;
  readonly rangeOf: (choice: SweptChoice) => SweepRange;
  readonly setRange: (choice: SweptChoice, range: SweepRange) => void;
  readonly characters: readonly Character[];
  /** Whether a character repeats the takes: one of those, or the one fitted to them. */
  readonly isPlayed: boolean;
  /** Whether the shown result answers another question than the one that is set now. */
  readonly isOther: boolean;
  readonly by: TakeGroups;
  /** The number of groups that are not swept. */
  readonly left: number;
  readonly begin: () => void;
}

/** Returns what a sweep asks, apart from the kit, whose present values may change after it. */
const askedOf = ({ choice, two, values, rows, hand, plays, seed, groups }: DrawnSweep) => [
  ...[choice.key, two?.key, values[0], values.at(-1), rows[0], rows.at(-1)],
  ...[hand, plays, hand === "" ? 0 : seed, ...groups],
];

/** Returns the question of a sweep over a kit; undefined for a kit without numbers. */
export function useSweep(kit: Kit): SweepQuestion | undefined {
  const studying = useStudying();
  const checks = useDocument(state => state.checks);
  const groups = useGroups();
  const { takes } = groups;
  const [{ one, two: keyOfTwo, ranges, hand, seed, count, drawn }, set] = useStudySettings("sweep");
  const [{ fitted }] = useStudySettings("hands");
  const choices = listSwept(kit);
  const choice = choices.find(({ key }) => key === one) ?? firstSwept(choices);
  if (!choice) return undefined;
  const two = choices.find(({ key }) => key === keyOfTwo && key !== choice.key);
  const characters = listCharacters(fitted);
  const isOwnHand = hand === OWN_HANDS;
  // The character of a question whose takes are played by their own hand is replaced by the one fitted to them.
  const character = characters.find(({ name }) => name === hand) ?? (isOwnHand ? characters[0] : undefined);
  const rangeOf = (of: SweptChoice) => ranges[of.key] ?? firstRange(of);
  const valuesOf = (of: SweptChoice) =>
    listValues(rangeOf(of).from, rangeOf(of).to, of.present, two ? VALUES_OF_TWO : VALUES_OF_ONE);
  const values = valuesOf(choice);
  const rows = two ? valuesOf(two) : [];
  const drawnNow: DrawnSweep = {
    ...{ choice, two, values, rows, seed },
    hand: isOwnHand ? "own" : (character?.name ?? ""),
    plays: character ? count : 1,
    groups: groups.list.map(({ name }) => name),
  };
  return {
    choices,
    choice,
    two,
    isOther: drawn !== undefined && !dequal(askedOf(drawn), askedOf(drawnNow)),
    rangeOf,
    setRange: (of, range) => set({ ranges: { ...ranges, [of.key]: range } }),
    characters,
    isPlayed: character !== undefined,
    by: groups.by,
    left: groups.left,
    begin() {
      const hands = character
        ? { hands: { character, ...withAims(fitted, character, takes), seed, count } }
        : {};
      const own = { kit, swept: choice.swept, ...hands };
      const parts = two
        ? rows.map(value => ({ ...own, values, besides: [{ swept: two.swept, value }] }))
        : halve({ ...own, values });
      const questions = groups
        .asks(isOwnHand)
        .flatMap(group => parts.map(sweep => ({ sweep, checks, ...group })));
      set({ drawn: drawnNow });
      studying.begin("sweep", { job: "sweep", questions, takes, merge: answers => answers });
    },
  };
}
