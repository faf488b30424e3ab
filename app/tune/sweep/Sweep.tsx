import { countWords, type Kit } from "#core";
import { useStudy, useStudySettings } from "../../document/studiesContext";
import { formatSeeds } from "../model/characters";
import { listSweptGroups, runsOfValue } from "../model/sweepLines";
import { isThere } from "../model/sweptNumbers";
import { StudyBar } from "../StudyBar";
import { LeftOut, useTakeSelection } from "../TakesWord";
import { SweepChart } from "./SweepChart";
import { SweepField } from "./SweepField";
import { SweepQuestion } from "./SweepQuestion";
import { SweepSideBySide } from "./SweepSideBySide";
import { useSweep } from "./useSweep";
import { useTrying } from "./useTrying";

/** The effect of one number on all takes, value by value: drawn, tried on the tape, kept. */
export function Sweep({ kit }: { kit: Kit }) {
  const { takes } = useTakeSelection();
  const [{ drawn }] = useStudySettings("sweep");
  const study = useStudy("sweep");
  const trying = useTrying();
  const base = trying.before ?? kit;
  const question = useSweep(base);
  if (!question) return <p className="text-soft">There is no number to sweep yet: begin a rule in Shape.</p>;
  const shown = drawn && isThere(base, drawn.choice) ? drawn : undefined;
  const groups = listSweptGroups(study?.value ?? [], shown ?? { groups: [], two: undefined });
  const points = groups[0]?.points ?? [];
  const isWhole = study?.state === "done";
  const isGrouped = shown !== undefined && shown.groups.length > 0;
  const begin = () => {
    trying.letGo();
    question.begin();
  };
  return (
    <section aria-label="Sweep">
      <h2 className="font-serif text-2xl">What a number does</h2>
      <p className="text-sm text-soft">
        Every take is judged with each of its values; lines show what is performed, lost and answered. A value
        chosen there is tried on the tape before it is kept.
      </p>
      <SweepQuestion question={question} />
      <StudyBar name="sweep" word="Sweep" canBegin={takes.length > 0} of={base} onBegin={begin}>
        {points[0] && (
          <span className="text-soft">
            n = {countWords(runsOfValue(groups), "run")} for each value
            {!isWhole && " so far"}
            {drawn?.hand &&
              `, ${drawn.hand.toLowerCase()} hands, ${formatSeeds(drawn.seed, drawn.plays, isWhole)}`}
            {question.isOther && (
              <b className="text-foxglove">; this answers the question before it was changed</b>
            )}
          </span>
        )}
        <LeftOut groups={question.left} />
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to sweep over: record one in Play.</p>}
      {isGrouped && groups.length > 0 && (
        <SweepSideBySide groups={groups} drawn={shown} base={base} isWhole={isWhole} trying={trying} />
      )}
      {points.length > 0 && shown && !isGrouped && !shown.two && (
        <SweepChart points={points} drawn={shown} base={base} isWhole={isWhole} trying={trying} />
      )}
      {shown?.two && !isGrouped && study?.value && (
        <SweepField
          one={shown.choice}
          two={shown.two}
          rows={shown.rows}
          plays={shown.plays}
          cells={study.value}
          kit={base}
          trying={trying}
        />
      )}
    </section>
  );
}
