import type { Kit } from "#core";
import type { DrawnSweep } from "../../document/studySettings";
import { formatGroupLimits, highestOf, type SweptGroup } from "../model/sweepLines";
import { formatShort, presentOf } from "../model/sweptNumbers";
import { SweepLines, TryBar } from "./SweepChart";
import { SweepField } from "./SweepField";
import { SO_FAR } from "./SweepWords";
import type { Trying } from "./useTrying";

/** A sweep with a chart, or a field of two numbers, for each group of takes, on one scale. */
export function SweepSideBySide({
  groups,
  drawn,
  base,
  isWhole,
  trying,
}: {
  groups: readonly SweptGroup[];
  drawn: DrawnSweep;
  /** The swept kit. */
  base: Kit;
  /** Whether every value has all of its plays. */
  isWhole: boolean;
  trying: Trying;
}) {
  const { choice, two, rows } = drawn;
  const yMost = highestOf(groups);
  return (
    <>
      {!two && (
        <p className="font-semibold" data-testid="sweep-groups">
          {!isWhole && SO_FAR}
          {formatGroupLimits(groups, presentOf(base, choice), value => formatShort(value, choice))}
        </p>
      )}
      <TryBar trying={trying} choice={choice} two={two} />
      <div className="grid grid-cols-[repeat(auto-fit,minmax(22rem,1fr))] gap-x-6 gap-y-3">
        {groups.map(({ name, points, answers }) => (
          <section key={name} aria-label={name} className="min-w-0">
            <h3 className="truncate font-semibold" title={name}>
              {name}
            </h3>
            {two ? (
              <SweepField
                one={choice}
                two={two}
                rows={rows}
                plays={drawn.plays}
                cells={answers}
                kit={base}
                trying={trying}
                group={name}
              />
            ) : (
              <SweepLines points={points} drawn={drawn} base={base} trying={trying} group={{ name, yMost }} />
            )}
          </section>
        ))}
      </div>
    </>
  );
}
