import { dequal } from "dequal";
import { nanoid } from "nanoid";
import { CHARACTERS, namesUnwanted, playHand, type Character, type Kit, type PressShare } from "#core";
import { useStudySettings, useStudying } from "../../document/studiesContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import type { HandsAsked, SimulatedHand } from "../../document/studySettings";
import { listVersions, readVersion } from "../model/versions";
import { useTakeSelection } from "../TakesWord";

/** The spreads of the onset for which the share of one press is shown, in ms. */
const SPREADS = [0, 8, 16, 25, 33, 50, 67, 83, 100, 125, 150] as const;
/** The maximum length of a take's name, in letters. */
const MAX_NAME = 200;

/** The settings of the study of simulated players, and the actions that start its parts. */
export function useHands(kit: Kit) {
  const studying = useStudying();
  const workbench = useWorkbench();
  const variants = useDocument(state => state.variants);
  const checks = useDocument(state => state.checks);
  const all = useDocument(state => state.takes);
  const { takes } = useTakeSelection();
  const [settings, set] = useStudySettings("hands");
  const { one, two, seed, count, control, fitted } = settings;
  const asked: HandsAsked = { one, two, seed, count, control };
  const versions = listVersions(kit, variants);
  const questionOf = ({ character, version }: SimulatedHand) => ({
    kit: readVersion(version, kit, variants) ?? kit,
    character,
    seed,
    count,
    ...(control === "" ? {} : { control }),
    never: checks.flatMap((check, c) => (namesUnwanted(check) && !check.off ? [c] : [])),
  });
  const nameOf = ({ character, version }: SimulatedHand) =>
    `${character.name}, ${versions.find(({ value }) => value === version)?.label ?? version}`;
  return {
    settings,
    set,
    takes,
    versions,
    /** The controls whose presses can be counted. */
    controls: [
      { value: "", label: "all controls of rules" },
      ...kit.controls.map(({ id, name }) => ({ value: id, label: name })),
    ],
    /** Whether the shown result answers another question than the one that is set now. */
    isOther: settings.asked !== undefined && !dequal(settings.asked, asked),
    /** The characters to start from: the built-in ones, and the fitted one. */
    characters: fitted ? [...CHARACTERS, fitted] : CHARACTERS,
    /** Plays all takes by one character, or by two. */
    begin() {
      const sides = two ? [one, two] : [one];
      set({ drawn: sides.map(nameOf), asked });
      studying.begin("hands", {
        job: "hands",
        questions: sides.map(side => ({ hands: questionOf(side), checks })),
        takes,
        merge: results => results,
      });
    },
    /** Fits a character to the takes. */
    beginFit() {
      studying.begin("fit", { job: "fit", questions: [{ kit }], takes, merge: ([found]) => found });
    },
    /** Plays one press by wider and wider characters. */
    beginSpread(press: PressShare) {
      const take = all.find(({ id }) => id === press.take);
      if (!take) return;
      set({ press });
      studying.begin("spread", {
        job: "spread",
        questions: [
          { hands: questionOf(one), control: press.control, press: press.press, spreadsMs: SPREADS },
        ],
        takes: [take],
        merge: ([points]) => points ?? [],
      });
    },
    /** Adds one repetition of a take by the first character as a take of its own. */
    keepPlay(takeId: string, playSeed: number) {
      const take = all.find(({ id }) => id === takeId);
      if (!take) return;
      const name = `${take.name || take.id}, ${one.character.name.toLowerCase()} hand, seed ${playSeed}`;
      const played = playHand(take, one.character, playSeed);
      workbench.addTake(
        { ...played, id: nanoid(8), name: name.slice(0, MAX_NAME) },
        `kept what a hand played: ${name}`,
      );
    },
    chooseFitted: (character: Character) => set({ fitted: character, one: { ...one, character } }),
  };
}

export type HandsStudy = ReturnType<typeof useHands>;
