import { CHARACTERS } from "#core";
import { PRESENT_VERSION } from "../../document/studySettings";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { PlaysStone, SeedStone } from "../RepetitionStones";
import { CharacterLine } from "./CharacterLine";
import type { HandsStudy } from "./useHands";
import { KeptMarks } from "../../ui/KeptMarks";

const [, , BEGINNER] = CHARACTERS;
const LOOK = "my-1 max-w-[960px] font-serif leading-[2.1]";

/** The first character, its repetitions and its version of the kit, as a sentence. */
function FirstHand({
  study: { settings, set, characters, versions, controls, ownWords },
}: {
  study: HandsStudy;
}) {
  const { one, seed, count, control, isOwnHand } = settings;
  return (
    <p className={LOOK} data-testid="hand-sentence">
      <KeptMarks>
        <CharacterLine
          character={one.character}
          known={characters}
          side=""
          own={{ words: ownWords, isChosen: isOwnHand, choose: () => set({ isOwnHand: true }) }}
          onChange={character => set({ isOwnHand: false, one: { ...one, character } })}
        />{" "}
        {isOwnHand ? "plays" : "It plays"} each take{" "}
        <PlaysStone value={count} most={5000} onChange={next => set({ count: next })} /> times from seed{" "}
        <SeedStone value={seed} onChange={next => set({ seed: next })} />, under{" "}
        <ChoiceWord
          label="version"
          value={one.version}
          choices={versions}
          onChoose={version => set({ one: { ...one, version } })}
        />
        , and the presses of{" "}
        <ChoiceWord
          label="presses counted"
          value={control}
          choices={controls}
          onChoose={chosen => set({ control: chosen })}
        />{" "}
        are counted.
      </KeptMarks>
    </p>
  );
}

/** The character it is compared with, or the button that adds one. */
function SecondHand({ study: { settings, set, characters, versions } }: { study: HandsStudy }) {
  const { two } = settings;
  if (!two)
    return (
      <Button
        look="quiet"
        className="-ml-2"
        onClick={() => set({ two: { character: BEGINNER!, version: PRESENT_VERSION } })}
      >
        … beside another hand, or another version
      </Button>
    );
  return (
    <p className={`${LOOK} border-l-2 border-fern pl-3`} data-testid="hand-sentence-two">
      Beside it, from the same seeds:{" "}
      <CharacterLine
        character={two.character}
        known={characters}
        side="second "
        onChange={character => set({ two: { ...two, character } })}
      />{" "}
      under{" "}
      <ChoiceWord
        label="second version"
        value={two.version}
        choices={versions}
        onChoose={version => set({ two: { ...two, version } })}
      />
      .{" "}
      <Button look="quiet" onClick={() => set({ two: undefined })}>
        Take the second away
      </Button>
    </p>
  );
}

/** The simulated players of the study as editable sentences. */
export function HandSentences({ study }: { study: HandsStudy }) {
  return (
    <>
      <FirstHand study={study} />
      <SecondHand study={study} />
    </>
  );
}
