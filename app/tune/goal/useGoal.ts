import { namesUnwanted, type Character, type Kit } from "#core";
import { useStudySettings, useStudying } from "../../document/studiesContext";
import { OWN_HANDS, type GoalAsked, type SweepRange, type SweptChoice } from "../../document/studySettings";
import { useDocument } from "../../document/workbenchContext";
import { listCharacters, withAims } from "../model/characters";
import { isSameGoal } from "../model/goalAsked";
import { controlOf, firstRange, firstSwept, listSwept, listValues } from "../model/sweptNumbers";
import { useGroups, type Groups } from "../useGroups";

/** The setting for one number only. */
export const NO_SECOND = "none";
/** The maximum number of values of each number. */
const MAX_VALUES = 41;

/** The question of a goal, and the actions on it. */
export interface GoalStudy {
  readonly choices: readonly SweptChoice[];
  readonly one: SweptChoice;
  readonly two: SweptChoice | undefined;
  readonly rangeOf: (choice: SweptChoice) => SweepRange;
  readonly setRange: (choice: SweptChoice, range: SweepRange) => void;
  readonly characters: readonly Character[];
  readonly character: Character;
  /** Whether the takes of each group are played by the character fitted to them. */
  readonly isOwnHand: boolean;
  /** The control whose presses are counted; empty for all. */
  readonly control: string;
  readonly groups: Groups;
  /** Whether the shown result answers another question than the one that is set now. */
  readonly isOther: boolean;
  readonly begin: () => void;
}

/** Returns the default second number: the coyote time of the same move, if there is one. */
function secondOf(choices: readonly SweptChoice[], one: SweptChoice): SweptChoice | undefined {
  const rule = one.key.split(".").slice(0, 2).join(".");
  return choices.find(({ key }) => key.startsWith(`${rule}.`) && key.endsWith("coyote"));
}

/** Returns the question of a goal over a kit; undefined for a kit without numbers. */
export function useGoal(kit: Kit): GoalStudy | undefined {
  const studying = useStudying();
  const checks = useDocument(state => state.checks);
  // Every group must meet the goal, however many there are.
  const groups = useGroups(Infinity);
  const { takes } = groups;
  const [settings, set] = useStudySettings("goal");
  const [{ fitted }] = useStudySettings("hands");
  const choices = listSwept(kit);
  const one = choices.find(({ key }) => key === settings.one) ?? firstSwept(choices);
  if (!one) return undefined;
  const chosenSecond = choices.find(({ key }) => key === settings.two && key !== one.key);
  const two = settings.two === NO_SECOND ? undefined : (chosenSecond ?? secondOf(choices, one));
  const characters = listCharacters(fitted);
  const isOwnHand = settings.hand === OWN_HANDS;
  const character = characters.find(({ name }) => name === settings.hand) ?? characters[0]!;
  const rangeOf = (of: SweptChoice) => settings.ranges[of.key] ?? firstRange(of);
  const valuesOf = (of: SweptChoice) => listValues(rangeOf(of).from, rangeOf(of).to, of.present, MAX_VALUES);
  const { seed, count, pressPercent } = settings;
  const isThere = settings.control === "" || kit.controls.some(({ id }) => id === settings.control);
  const control = (isThere ? settings.control : undefined) ?? controlOf(kit, one) ?? "";
  const rows = two ? valuesOf(two) : [];
  const names = groups.list.map(({ name }) => name);
  const asked: GoalAsked = {
    groups: names,
    isOwnHand,
    one,
    two,
    rows,
    ranges: [one, ...(two ? [two] : [])].map(rangeOf),
    character,
    seed,
    count,
    control,
    pressPercent,
  };
  return {
    choices,
    one,
    two,
    rangeOf,
    setRange: (of, range) => set({ ranges: { ...settings.ranges, [of.key]: range } }),
    characters,
    character,
    isOwnHand,
    control,
    groups,
    isOther: settings.asked !== undefined && !isSameGoal(settings.asked, asked),
    begin() {
      const own = {
        kit,
        character,
        ...withAims(fitted, character, takes),
        seed,
        count,
        ...(control === "" ? {} : { control }),
        never: checks.flatMap((check, c) => (namesUnwanted(check) && !check.off ? [c] : [])),
        pressShare: pressPercent / 100,
        swept: one.swept,
        values: valuesOf(one),
      };
      const besides = two ? rows.map(value => ({ besides: [{ swept: two.swept, value }] })) : [{}];
      set({ asked });
      studying.begin("goal", {
        job: "goal",
        questions: groups
          .asks(isOwnHand)
          .flatMap(group => besides.map(row => ({ goal: { ...own, ...row }, checks, ...group }))),
        takes,
        merge: answers => answers,
      });
    },
  };
}
