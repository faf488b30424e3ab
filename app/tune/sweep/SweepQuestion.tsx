import { useStudySettings } from "../../document/studiesContext";
import { AS_RECORDED } from "../../document/studySettings";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { listHandChoices } from "../model/characters";
import { PlaysStone, SeedStone } from "../RepetitionStones";
import { SweepSentence } from "./SweepSentence";
import type { SweepQuestion as Question } from "./useSweep";

/** The repetitions of each take by a character, and their first seed. */
function Repetitions() {
  const [{ seed, count }, set] = useStudySettings("sweep");
  return (
    <>
      , <PlaysStone value={count} most={2000} onChange={next => set({ count: next })} /> times a take from
      seed <SeedStone value={seed} onChange={next => set({ seed: next })} />
    </>
  );
}

/** The second number with its range, or the choice of one. */
function SecondNumber({ question }: { question: Question }) {
  const { choices, choice, two, rangeOf, setRange } = question;
  const [, set] = useStudySettings("sweep");
  const others = choices.filter(({ key }) => key !== choice.key);
  if (!two)
    return (
      <ChoiceWord
        label="second number"
        value=""
        placeholder="no other number"
        choices={others.map(({ key, words }) => ({ value: key, label: words }))}
        onChoose={key => set({ two: key })}
      />
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
      <Button look="quiet" aria-label="Sweep one number only" onClick={() => set({ two: "" })}>
        ×
      </Button>
    </>
  );
}

/** The question of a sweep as an editable sentence. */
export function SweepQuestion({ question }: { question: Question }) {
  const { choices, choice, rangeOf, setRange, characters, isPlayed, by } = question;
  const [{ hand }, set] = useStudySettings("sweep");
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
      <ChoiceWord label="hands" value={hand} choices={hands} onChoose={value => set({ hand: value })} />
      {isPlayed && <Repetitions />}, against <SecondNumber question={question} />.
    </p>
  );
}
