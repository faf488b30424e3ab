import type { Kit } from "#core";
import { useStudy, useStudySettings } from "../../document/studiesContext";
import { formatSeeds } from "../model/characters";
import { layoutGoal } from "../model/goalField";
import { isThere } from "../model/sweptNumbers";
import { StudyBar } from "../StudyBar";
import { useTrying } from "../sweep/useTrying";
import { useTakeSelection } from "../TakesWord";
import { GoalField } from "./GoalField";
import { GoalSentence } from "./GoalSentence";
import { useGoal } from "./useGoal";

/** The numbers with which the chosen players keep the presses they meant: a field of all pairs, and the choice. */
export function Goal({ kit }: { kit: Kit }) {
  const { takes } = useTakeSelection();
  const [{ asked, playPercent }] = useStudySettings("goal");
  const found = useStudy("goal");
  const trying = useTrying();
  const base = trying.before ?? kit;
  const study = useGoal(base);
  if (!study) return <p className="text-soft">There is no number to choose yet: begin a rule in Shape.</p>;
  const isShown =
    asked && found?.value && isThere(base, asked.one) && (!asked.two || isThere(base, asked.two));
  const begin = () => {
    trying.letGo();
    study.begin();
  };
  return (
    <section aria-label="Goal">
      <h2 className="font-serif text-2xl">Which numbers are enough</h2>
      <p className="text-sm text-soft">
        Every value, or pair of values, is played many times: a field shows in how many plays it meets the
        goal, and one that is enough is chosen.
      </p>
      <GoalSentence kit={base} study={study} />
      <StudyBar name="goal" word="Find them" canBegin={takes.length > 0} of={base} onBegin={begin}>
        {asked && found && (
          <span className="text-soft">
            {asked.isOwnHand ? "own" : asked.character.name.toLowerCase()} hands,{" "}
            {formatSeeds(asked.seed, asked.count)}
            {study.isOther && (
              <b className="text-foxglove">; this answers the question before it was changed</b>
            )}
          </span>
        )}
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to play: record one in Play.</p>}
      {isShown && (
        <GoalField
          kit={base}
          asked={asked}
          field={layoutGoal(base, asked, found.value, playPercent)}
          playPercent={playPercent}
          isWhole={found.state === "done"}
          trying={trying}
        />
      )}
    </section>
  );
}
