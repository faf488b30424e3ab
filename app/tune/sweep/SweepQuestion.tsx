import { useStudySettings } from "../../document/studiesContext";
import { AS_RECORDED } from "../../document/studySettings";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { listHandChoices } from "../model/characters";
import { KeptMarks } from "../../ui/KeptMarks";
import { PlaysStone, SeedStone } from "../RepetitionStones";
import { SweepSentence } from "./SweepSentence";
import type { SweepQuestion as Question } from "./useSweep";

/** The second number with its range, or the choice of one, at the end of the sentence. */
function SecondNumber({ question }: { question: Question }) {
  const { choices, choice, two, rangeOf, setRange } = question;
  const [, set] = useStudySettings("sweep");
  const others = choices.filter(({ key }) => key !== choice.key);
  if (!two)
    return (
      <KeptMarks>
        <ChoiceWord
          label="second number"
          value=""
          placeholder="no other number"
          choices={others.map(({ key, words }) => ({ value: key, label: words }))}
          onChoose={key => set({ two: key })}
        />
        .
      </KeptMarks>
    );
  return (
    <>
      <SweepSentence
        choices={others}
        choice={two}
        range={rangeOf(two)}
        onChoose={key => set({ two: key })}
        onRange={range => setRange(two, range)}
      />{" "}
      <KeptMarks>
        <Button look="quiet" aria-label="Sweep one number only" onClick={() => set({ two: "" })}>
          ×
        </Button>
        .
      </KeptMarks>
    </>
  );
}

/** The question of a sweep as an editable sentence. */
export function SweepQuestion({ question }: { question: Question }) {
  const { choices, choice, rangeOf, setRange, characters, isPlayed, by } = question;
  const [{ hand, seed, count }, set] = useStudySettings("sweep");
  const hands = [
    { value: AS_RECORDED, label: "as recorded", hint: "each take once, without chance" },
    ...listHandChoices(characters, by).map(choice => ({ ...choice, label: `by ${choice.label}` })),
  ];
  return (
    <p className="my-1 font-serif text-lg leading-[1.9]" data-testid="sweep-sentence">
      Sweep{" "}
      <SweepSentence
        choices={choices}
        choice={choice}
        range={rangeOf(choice)}
        onChoose={one => set({ one })}
        onRange={range => setRange(choice, range)}
      />
      , played{" "}
      <KeptMarks>
        <ChoiceWord label="hands" value={hand} choices={hands} onChoose={value => set({ hand: value })} />
        {isPlayed && (
          <>
            , <PlaysStone value={count} most={2000} onChange={next => set({ count: next })} /> times a take
            from seed <SeedStone value={seed} onChange={next => set({ seed: next })} />
          </>
        )}
        , against{" "}
      </KeptMarks>
      <SecondNumber question={question} />
    </p>
  );
}
