import type { Kit } from "#core";
import { useStudySettings } from "../../document/studiesContext";
import { TermWord } from "../../ui/Explained";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { noStep } from "../../ui/noStep";
import { NumberStone } from "../../ui/NumberStone";
import { OWN_HANDS } from "../../document/studySettings";
import { listHandChoices } from "../model/characters";
import { PlaysStone, SeedStone } from "../RepetitionStones";
import { SweepSentence, unitAfter } from "../sweep/SweepSentence";
import { NO_SECOND, type GoalStudy } from "./useGoal";
import { KeptMarks } from "../../ui/KeptMarks";

/** A share in percent. */
function PercentStone(props: { label: string; value: number; onChange: (value: number) => void }) {
  return <NumberStone {...props} beginStep={() => noStep()} least={1} most={100} isWhole />;
}

/** The two numbers and their ranges. */
function Numbers({ study }: { study: GoalStudy }) {
  const { choices, one, two, rangeOf, setRange } = study;
  const [, set] = useStudySettings("goal");
  const others = choices.filter(({ key }) => key !== one.key);
  return (
    <>
      <SweepSentence
        choices={choices}
        choice={one}
        range={rangeOf(one)}
        onChoose={key => set({ one: key })}
        onRange={range => setRange(one, range)}
      />{" "}
      and{" "}
      <ChoiceWord
        label="second number"
        value={two?.key ?? NO_SECOND}
        choices={[
          { value: NO_SECOND, label: "no other number" },
          ...others.map(({ key, words }) => ({ value: key, label: words })),
        ]}
        onChoose={key => set({ two: key })}
      />
      {two && (
        <>
          {" "}
          from{" "}
          {(["from", "to"] as const).map(end => (
            <span key={end}>
              {end === "to" && " to "}
              <NumberStone
                label={`second ${end}`}
                value={rangeOf(two)[end]}
                least={Math.max(0, two.least)}
                most={100_000}
                isWhole
                beginStep={() => noStep()}
                onChange={value => setRange(two, { ...rangeOf(two), [end]: value })}
              />
            </span>
          ))}
          {unitAfter(two)}
        </>
      )}
    </>
  );
}

/** The goal as an editable sentence. */
export function GoalSentence({ kit, study }: { kit: Kit; study: GoalStudy }) {
  const [{ playPercent, pressPercent, seed, count }, set] = useStudySettings("goal");
  const { characters, character, isOwnHand, control, groups } = study;
  return (
    <p className="my-1 max-w-[960px] font-serif text-lg leading-[1.9]" data-testid="goal-sentence">
      <KeptMarks>
        <PercentStone
          label="percent of plays"
          value={playPercent}
          onChange={value => set({ playPercent: value })}
        />{" "}
        % of plays by{" "}
        <ChoiceWord
          label="character"
          value={isOwnHand ? OWN_HANDS : character.name}
          choices={listHandChoices(characters, groups.by)}
          onChoose={hand => set({ hand })}
        />
        {groups.list.length > 1 && ", of each group of takes,"} keep{" "}
        <PercentStone
          label="percent of meant presses"
          value={pressPercent}
          onChange={value => set({ pressPercent: value })}
        />{" "}
        % of the <TermWord of="meant">meant presses</TermWord> of{" "}
        <ChoiceWord
          label="presses counted"
          value={control}
          choices={[
            { value: "", label: "all controls of rules" },
            ...kit.controls.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChoose={chosen => set({ control: chosen })}
        />
        , with the fewest <TermWord of="unwanted">unwanted</TermWord>. The numbers:{" "}
        <span>
          <Numbers study={study} />
        </span>
        . Each take is played <PlaysStone value={count} most={2000} onChange={next => set({ count: next })} />{" "}
        times from seed <SeedStone value={seed} onChange={next => set({ seed: next })} />.
      </KeptMarks>
    </p>
  );
}
