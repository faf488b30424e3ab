import { dequal } from "dequal";
import { nanoid } from "nanoid";
import { namesUnwanted, playHand, type FittedCharacter, type Kit, type PressShare, type Take } from "#core";
import { useStudySettings, useStudying } from "../../document/studiesContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import type { PlayedHands } from "../../judging/jobs/hands";
import type { HandsAsked, SimulatedHand } from "../../document/studySettings";
import { listVersions, readVersion } from "../model/versions";
import { formatOwnHands, listCharacters, withAims } from "../model/characters";
import { useGroups } from "../useGroups";

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
  const groups = useGroups();
  const { takes } = groups;
  const [stored, set] = useStudySettings("hands");
  // A control that was deleted meanwhile has no presses to count.
  const control = kit.controls.some(({ id }) => id === stored.control) ? stored.control : "";
  const settings = { ...stored, control };
  const { one, two, seed, count, fitted, isOwnHand } = settings;
  const asked: HandsAsked = { groups: groups.by, isOwnHand, one, two, seed, count, control };
  const versions = listVersions(kit, variants);
  const questionOf = ({ character, version }: SimulatedHand) => ({
    kit: readVersion(version, kit, variants) ?? kit,
    character,
    ...withAims(fitted, character, takes),
    seed,
    count,
    ...(control === "" ? {} : { control }),
    never: checks.flatMap((check, c) => (namesUnwanted(check) && !check.off ? [c] : [])),
  });
  const nameOf = ({ character, version }: SimulatedHand, isOwn: boolean) =>
    `${isOwn ? "Own hand" : character.name}, ${versions.find(({ value }) => value === version)?.label ?? version}`;
  return {
    settings,
    set,
    takes,
    /** The number of groups that are not played. */
    left: groups.left,
    ownWords: formatOwnHands(groups.by),
    versions,
    /** The controls whose presses can be counted. */
    controls: [
      { value: "", label: "all controls of rules" },
      ...kit.controls.map(({ id, name }) => ({ value: id, label: name })),
    ],
    /** Whether the shown result answers another question than the one that is set now. */
    isOther: settings.asked !== undefined && !dequal(settings.asked, asked),
    /** The characters to start from: the built-in ones, and the fitted one. */
    characters: listCharacters(fitted),
    /** Plays the takes of each group by one character, or by two. */
    begin() {
      const sides = two ? [one, two] : [one];
      const columns = groups.asks(isOwnHand).flatMap((ask, g) =>
        sides.map((side, k) => ({
          column: { group: groups.names[g]!, hand: nameOf(side, isOwnHand && k === 0) },
          // The second hand is as it is written, for every group.
          question: {
            hands: questionOf(side),
            checks,
            ...(ask.group && { group: { ...ask.group, isOwnHand: isOwnHand && k === 0 } }),
          },
        })),
      );
      set({ drawn: columns.map(({ column }) => column), asked });
      studying.begin("hands", {
        job: "hands",
        questions: columns.map(({ question }) => question),
        takes,
        merge: results => results,
      });
    },
    /** Fits a character to the takes. */
    beginFit() {
      studying.begin("fit", { job: "fit", questions: [{ kit }], takes, merge: ([found]) => found });
    },
    /** Plays one press by wider and wider characters, from the one that played it. */
    beginSpread(press: PressShare, { character, aims }: PlayedHands) {
      const take = all.find(({ id }) => id === press.take);
      if (!take) return;
      const hands = { ...questionOf({ ...one, character }), ...(aims && { aims }) };
      set({ press });
      studying.begin("spread", {
        job: "spread",
        questions: [{ hands, control: press.control, press: press.press, spreadsMs: SPREADS }],
        takes: [take],
        merge: ([points]) => points ?? [],
      });
    },
    /** Adds one repetition of a take by the character that played it as a take of its own. */
    keepPlay(takeId: string, playSeed: number, { character, aims }: PlayedHands) {
      const take = all.find(({ id }) => id === takeId);
      if (!take) return;
      const name = `${take.name || take.id}, ${character.name.toLowerCase()} hand, seed ${playSeed}`;
      const played = playHand(take, character, playSeed, aims?.get(takeId));
      workbench.addTake(
        { ...played, id: nanoid(8), name: name.slice(0, MAX_NAME) },
        `kept what a hand played: ${name}`,
      );
    },
    /** Takes the fitted character, with the aims of the presses of these takes. */
    chooseFitted: (found: FittedCharacter, of: readonly Take[]) =>
      set({ fitted: { ...found, takes: of }, isOwnHand: false, one: { ...one, character: found.character } }),
  };
}

export type HandsStudy = ReturnType<typeof useHands>;
