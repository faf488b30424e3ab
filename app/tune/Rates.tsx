import { useState } from "react";
import { nameOf, roundLengths, type Kit } from "#core";
import { useDesk, useDocument, useSetting, useStudy } from "../document/context";
import type { Stories } from "../judging/jobs/stories";
import { Button } from "../ui/Button";
import { noStep } from "../ui/noStep";
import { NumberStone } from "../ui/NumberStone";
import { DifferenceList, TwoStories } from "./DifferenceList";
import { StudyBar } from "./StudyBar";
import { useTakeSelection } from "./TakesWord";

const OFFERED = [30, 50, 60, 72, 90, 120, 144, 240] as const;
const FIRST: readonly number[] = [30, 60, 120, 144];

/** The results of the rules at other rates, rule by rule, and the rounding of every length in ms. */
export function Rates({ kit }: { kit: Kit }) {
  const { studying } = useDesk();
  const all = useDocument(state => state.takes);
  const { takes } = useTakeSelection();
  const [rates, setRates] = useSetting<readonly number[]>("rates", FIRST);
  const [more, setMore] = useState(100);
  const [drawn, setDrawn] = useSetting<readonly number[]>("rates drawn", []);
  const [chosen, setChosen] = useSetting<{ rate: number; id: string } | undefined>("rates chosen", undefined);
  const study = useStudy<Stories>("rates");
  const toggle = (rate: number) =>
    setRates(
      rates.includes(rate) ? rates.filter(item => item !== rate) : [...rates, rate].sort((a, b) => a - b),
    );
  const begin = () => {
    setDrawn(rates);
    studying.begin("rates", {
      job: "stories",
      questions: [{ kit, versions: rates.map(rate => ({ ...kit, rate })) }],
      takes,
      merge: ([stories]) => stories ?? { stories: [], counts: [], own: undefined },
    });
  };
  const about = study?.kit ?? kit;
  const stories = study?.value?.stories ?? [];
  const rules = [
    ...(about.moves ?? []).map(({ id }) => ({
      id,
      kind: "performed" as const,
      name: nameOf(about, "moves", id),
    })),
    ...(about.prompts ?? []).map(({ id }) => ({
      id,
      kind: "prompt" as const,
      name: nameOf(about, "prompts", id),
    })),
  ];
  const eventsOf = (version: number, kind: string, id: string) =>
    stories
      .filter(story => story.version === version)
      .flatMap(({ events }) => events.filter(event => event.kind === kind && event.id === id));
  const lengths = roundLengths(kit, rates);
  const picked = chosen
    ? stories
        .filter(({ version }) => drawn[version] === chosen.rate)
        .map(story => ({ ...story, events: story.events.filter(({ id }) => id === chosen.id) }))
    : [];
  return (
    <section aria-label="Rates">
      <h2 className="font-serif text-2xl">At other rates</h2>
      <p className="text-sm text-soft">
        The same takes judged at other frame rates, story against story in time. Lengths in frames are frames
        of that rate; those in ms are rounded anew.
      </p>
      <p
        className="my-1 flex flex-wrap items-center gap-1 text-sm"
        role="group"
        aria-label="Rates to judge at"
      >
        {[...new Set([...OFFERED, ...rates])]
          .sort((a, b) => a - b)
          .map(rate => (
            <Button
              key={rate}
              aria-pressed={rates.includes(rate)}
              className={rates.includes(rate) ? "border-moss font-semibold text-moss" : ""}
              onClick={() => toggle(rate)}
            >
              {rates.includes(rate) ? "● " : "○ "}
              {rate}
            </Button>
          ))}
        <span className="ml-2">
          or{" "}
          <NumberStone
            label="another rate"
            value={more}
            onChange={setMore}
            beginStep={() => noStep()}
            least={1}
            most={1000}
            isWhole
          />
        </span>
        <Button look="quiet" disabled={rates.includes(more)} onClick={() => toggle(more)}>
          Add {more}
        </Button>
      </p>
      <StudyBar
        name="rates"
        word="Judge at these rates"
        canBegin={takes.length > 0 && rates.length > 0}
        onBegin={begin}
      >
        {study && (
          <span className="text-soft">
            n = {study.takes.length} {study.takes.length === 1 ? "take" : "takes"}
          </span>
        )}
      </StudyBar>
      {stories.length > 0 && (
        <table className="mt-1 text-sm" data-testid="rates">
          <thead>
            <tr>
              <th scope="col" className="pr-4 text-left font-normal text-soft">
                rule
              </th>
              {drawn.map(rate => (
                <th key={rate} scope="col" className="px-3 text-right font-mono font-normal text-soft">
                  at {rate}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rules.map(rule => (
              <tr key={`${rule.kind} ${rule.id}`} className="border-t border-line">
                <th scope="row" className="pr-4 text-left font-normal">
                  {rule.name}
                </th>
                {drawn.map((rate, version) => {
                  const events = eventsOf(version, rule.kind, rule.id);
                  const count = (what: string) => events.filter(event => event.what === what).length;
                  const parts = [
                    ...(count("gone") > 0 ? [`−${count("gone")} gone`] : []),
                    ...(count("new") > 0 ? [`+${count("new")} new`] : []),
                    ...(count("changed") > 0 ? [`${count("changed")} other`] : []),
                    ...(count("slipped") > 0 ? [`${count("slipped")} slip`] : []),
                  ];
                  return (
                    <td key={rate} className="px-1 text-right">
                      {events.length === 0 ? (
                        <span className="px-2 text-soft">–</span>
                      ) : (
                        <Button
                          look="quiet"
                          aria-pressed={chosen?.rate === rate && chosen.id === rule.id}
                          aria-label={`${rule.name} at ${rate}: ${parts.length > 0 ? parts.join(", ") : `all ${events.length} alike`}`}
                          className={parts.length > 0 ? "text-foxglove!" : ""}
                          onClick={() => setChosen({ rate, id: rule.id })}
                        >
                          {parts.length > 0 ? parts.join(" ") : `${events.length} alike`}
                        </Button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {chosen && picked.length > 0 && (
        <div className="mt-2" data-testid="rate-differences">
          <h3 className="text-sm font-semibold">
            {rules.find(({ id }) => id === chosen.id)?.name} at {chosen.rate} frames a second, against{" "}
            {about.rate}
          </h3>
          {picked
            .filter(({ events }) => events.some(({ what }) => what !== "same"))
            .map(({ take, events }) => {
              const of = all.find(({ id }) => id === take);
              return of && <TwoStories key={take} events={events} seconds={of.frames / of.rate} />;
            })}
          <DifferenceList kit={about} stories={picked} />
        </div>
      )}
      {lengths.length > 0 && (
        <>
          <h3 className="mt-3 text-sm font-semibold">What lengths in ms round to</h3>
          <table className="text-sm" data-testid="roundings">
            <tbody>
              {lengths.map(({ path, rule, label, written, rounding, at }) => (
                <tr key={path.join()} className="border-t border-line">
                  <th scope="row" className="pr-4 text-left font-normal">
                    {rule}: {label}, <span className="font-mono">{written}</span>{" "}
                    <span className="text-soft">{rounding === "atLeast" ? "at least" : "at most"}</span>
                  </th>
                  {at.map(({ rateHz, frames, offMs }) => (
                    <td key={rateHz} className="px-3 text-right font-mono">
                      {frames}f{" "}
                      <span className="text-soft">
                        at {rateHz},{" "}
                        {offMs === 0
                          ? "exact"
                          : `${offMs > 0 ? "+" : "−"}${Math.abs(Math.round(offMs * 10) / 10)} ms`}
                      </span>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}
