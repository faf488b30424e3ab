import { CHARACTERS, type Character, type Kit } from "#core";
import { useStudySettings, useStudying } from "../../document/studiesContext";
import { useDocument } from "../../document/workbenchContext";
import type { SweepRange, SweptChoice } from "../../document/studySettings";
import { firstRange, firstSwept, listSwept, listValues } from "../model/sweptNumbers";
import { useTakeSelection } from "../TakesWord";

/** The maximum number of values of one number, and of each of two. */
const VALUES_OF_ONE = 41;
const VALUES_OF_TWO = 15;
/** A sweep of one number is shared by two workers. */
const HALVES = [0, 1] as const;

/** The question of a sweep: its numbers, their ranges, and the character that repeats the takes. */
export interface SweepQuestion {
  readonly choices: readonly SweptChoice[];
  readonly choice: SweptChoice;
  readonly two: SweptChoice | undefined;
  readonly rangeOf: (choice: SweptChoice) => SweepRange;
  readonly setRange: (choice: SweptChoice, range: SweepRange) => void;
  readonly characters: readonly Character[];
  /** The character that repeats the takes; undefined for takes as recorded. */
  readonly character: Character | undefined;
  readonly begin: () => void;
}

/** Returns the question of a sweep over a kit; undefined for a kit without numbers. */
export function useSweep(kit: Kit): SweepQuestion | undefined {
  const studying = useStudying();
  const checks = useDocument(state => state.checks);
  const { takes } = useTakeSelection();
  const [{ one, two: keyOfTwo, ranges, hand, seed, count }, set] = useStudySettings("sweep");
  const [{ fitted }] = useStudySettings("hands");
  const choices = listSwept(kit);
  const choice = choices.find(({ key }) => key === one) ?? firstSwept(choices);
  if (!choice) return undefined;
  const two = choices.find(({ key }) => key === keyOfTwo && key !== choice.key);
  const characters = fitted ? [...CHARACTERS, fitted] : CHARACTERS;
  const character = characters.find(({ name }) => name === hand);
  const rangeOf = (of: SweptChoice) => ranges[of.key] ?? firstRange(of);
  const valuesOf = (of: SweptChoice) =>
    listValues(rangeOf(of).from, rangeOf(of).to, of.present, two ? VALUES_OF_TWO : VALUES_OF_ONE);
  return {
    choices,
    choice,
    two,
    rangeOf,
    setRange: (of, range) => set({ ranges: { ...ranges, [of.key]: range } }),
    characters,
    character,
    begin() {
      const values = valuesOf(choice);
      const rows = two ? valuesOf(two) : [];
      const hands = character ? { hands: { character, seed, count } } : {};
      const own = { kit, swept: choice.swept, ...hands };
      const questions = two
        ? rows.map(value => ({ sweep: { ...own, values, besides: [{ swept: two.swept, value }] }, checks }))
        : HALVES.map(half => values.filter((_, k) => k % HALVES.length === half))
            .filter(list => list.length > 0)
            .map(list => ({ sweep: { ...own, values: list }, checks }));
      set({ drawn: { choice, two, rows, hand: character?.name ?? "", plays: character ? count : 1 } });
      studying.begin("sweep", { job: "sweep", questions, takes, merge: answers => answers });
    },
  };
}
