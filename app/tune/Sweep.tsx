import type { KeyboardEvent } from "react";
import { CHARACTERS, findEdges, type Character, type Kit, type SweepPoint } from "#core";
import { useDesk, useDocument, useSetting, useStudy } from "../document/context";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { LineChart, type ChartMark } from "../ui/LineChart";
import { noStep } from "../ui/noStep";
import { NumberStone } from "../ui/NumberStone";
import { StudyBar } from "./StudyBar";
import { SweepField } from "./SweepField";
import { linesOf } from "./model/sweepLines";
import { SweepSentence, type Range } from "./SweepSentence";
import { EdgeWords, PointWords } from "./SweepWords";
import {
  firstRange,
  firstSwept,
  formatShort,
  isThere,
  listSwept,
  listValues,
  presentOf,
  type SweptChoice,
} from "./model/sweptNumbers";
import { useTakeSelection } from "./TakesWord";
import { useTrying, type Trying } from "./useTrying";

const NONE = "none";

/** Tries a value by click or arrow keys, keeps it by Enter, discards it by Escape. */
function handleKeys(
  event: KeyboardEvent,
  points: readonly SweepPoint[],
  now: number,
  choice: SweptChoice,
  trying: Trying,
): void {
  const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  const isUndo =
    (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && trying.value !== undefined;
  if (step === undefined && event.key !== "Enter" && event.key !== "Escape" && !isUndo) return;
  event.preventDefault();
  if (event.key === "Enter") return trying.keep();
  if (event.key === "Escape" || isUndo) {
    event.stopPropagation();
    return trying.letGo();
  }
  const values = points.filter(({ runs }) => runs > 0).map(({ value }) => value);
  const at = values.reduce(
    (best, value, k) => (Math.abs(value - now) < Math.abs(values[best]! - now) ? k : best),
    0,
  );
  const next = values[Math.min(values.length - 1, Math.max(0, at + (step ?? 0)))];
  if (next !== undefined) trying.tryValue(choice.swept, next, choice.name);
}

/** The effect of one number on all takes, value by value: drawn, tried on the tape, kept. */
export function Sweep({ kit }: { kit: Kit }) {
  const { studying } = useDesk();
  const checks = useDocument(state => state.checks);
  const { takes } = useTakeSelection();
  const [keys, setKeys] = useSetting<{ one?: string; two?: string }>("sweep numbers", {});
  const [ranges, setRanges] = useSetting<Readonly<Record<string, Range>>>("sweep ranges", {});
  const [hand, setHand] = useSetting("sweep hand", NONE);
  const [seed, setSeed] = useSetting("sweep seed", 1);
  const [count, setCount] = useSetting("sweep count", 200);
  const [fitted] = useSetting<Character | undefined>("fitted", undefined);
  const [drawn, setDrawn] = useSetting<
    | {
        choice: SweptChoice;
        two: SweptChoice | undefined;
        rows: readonly number[];
        hand: string;
        plays: number;
      }
    | undefined
  >("sweep drawn", undefined);
  const study = useStudy<readonly (readonly SweepPoint[] | undefined)[]>("sweep");
  const trying = useTrying();
  const base = trying.before ?? kit;
  const choices = listSwept(base);
  const choice = choices.find(({ key }) => key === keys.one) ?? firstSwept(choices);
  const two = choices.find(({ key }) => key === keys.two && key !== choice?.key);
  if (!choice) return <p className="text-soft">There is no number to sweep yet: begin a rule in Shape.</p>;
  const rangeOf = (one: SweptChoice) => ranges[one.key] ?? firstRange(one);
  const setRange = (one: SweptChoice) => (range: Range) => setRanges({ ...ranges, [one.key]: range });
  const characters: readonly Character[] = fitted ? [...CHARACTERS, fitted] : CHARACTERS;
  const character = characters.find(({ name }) => name === hand);
  const range = rangeOf(choice);
  const rows = two ? listValues(rangeOf(two).from, rangeOf(two).to, two.present, 15) : [];
  const begin = () => {
    trying.letGo();
    const values = listValues(range.from, range.to, choice.present, two ? 15 : 41);
    const hands = character ? { hands: { character, seed, count } } : {};
    setDrawn({ choice, two, rows, hand: character?.name ?? "", plays: character ? count : 1 });
    const own = { kit: base, swept: choice.swept, ...hands };
    const halves = [0, 1]
      .map(half => values.filter((_, k) => k % 2 === half))
      .filter(list => list.length > 0);
    const questions = two
      ? rows.map(value => ({ sweep: { ...own, values, besides: [{ swept: two.swept, value }] }, checks }))
      : halves.map(half => ({ sweep: { ...own, values: half }, checks }));
    studying.begin("sweep", { job: "sweep", questions, takes, merge: answers => answers });
  };
  const isField = drawn?.two !== undefined;
  const points = (study?.value ?? []).flatMap(list => list ?? []).sort((a, b) => a.value - b.value);
  const shown = drawn && isThere(base, drawn.choice) ? drawn.choice : undefined;
  const present = shown ? presentOf(base, shown) : 0;
  const at = trying.value ?? present;
  const point = points.find(({ value }) => value === at);
  const edges = findEdges(points, present);
  const marks: ChartMark[] = shown
    ? [
        { x: present, words: `now ${formatShort(present, shown)}`, look: "ink" },
        ...(edges.nothingLostFrom === undefined
          ? []
          : [{ x: edges.nothingLostFrom, words: "nothing lost from here", look: "moss" } as const]),
        ...(trying.value === undefined
          ? []
          : [{ x: trying.value, words: `tried ${formatShort(trying.value, shown)}`, look: "dew" } as const]),
      ]
    : [];
  return (
    <section aria-label="Sweep">
      <h2 className="font-serif text-2xl">What a number does</h2>
      <p className="my-1 font-serif text-lg leading-[1.9]" data-testid="sweep-sentence">
        Sweep{" "}
        <SweepSentence
          choices={choices}
          choice={choice}
          range={range}
          onChoose={one => setKeys({ ...keys, one })}
          onRange={setRange(choice)}
        />
        , played{" "}
        <ChoiceWord
          label="hands"
          value={hand}
          choices={[
            { value: NONE, label: "as recorded", hint: "each take once, without chance" },
            ...characters.map(item => ({
              value: item.name,
              label: `by ${item.name.toLowerCase()} hands`,
              hint: `each press moved by chance, give or take ${item.spreadMs} ms`,
            })),
          ]}
          onChoose={setHand}
        />
        {character && (
          <>
            ,{" "}
            <NumberStone
              label="plays a take"
              value={count}
              onChange={setCount}
              beginStep={() => noStep()}
              least={1}
              most={2000}
              isWhole
            />{" "}
            times a take from seed{" "}
            <NumberStone
              label="seed"
              value={seed}
              onChange={setSeed}
              beginStep={() => noStep()}
              least={0}
              most={1_000_000}
              isWhole
            />
          </>
        )}
        , against{" "}
        {two ? (
          <>
            <SweepSentence
              choices={choices.filter(({ key }) => key !== choice.key)}
              choice={two}
              range={rangeOf(two)}
              onChoose={key => setKeys({ ...keys, two: key })}
              onRange={setRange(two)}
            />{" "}
            <Button
              look="quiet"
              aria-label="Sweep one number only"
              onClick={() => setKeys({ ...keys, two: "" })}
            >
              ×
            </Button>
          </>
        ) : (
          <ChoiceWord
            label="second number"
            value=""
            placeholder="no other number"
            choices={choices
              .filter(({ key }) => key !== choice.key)
              .map(({ key, words }) => ({ value: key, label: words }))}
            onChoose={key => setKeys({ ...keys, two: key })}
          />
        )}
        .
      </p>
      <StudyBar name="sweep" word="Sweep" canBegin={takes.length > 0} of={base} onBegin={begin}>
        {points[0] && (
          <span className="text-soft">
            n = {points[0].runs} runs a value
            {drawn?.hand ? `, ${drawn.hand.toLowerCase()} hands, seeds ${seed} to ${seed + count - 1}` : ""}
          </span>
        )}
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to sweep over: record one in Play.</p>}
      {points.length > 0 && shown && !isField && (
        <>
          <EdgeWords
            points={points}
            present={present}
            choice={shown}
            rateHz={kit.rate}
            isBroken={points.some(({ runs }) => runs === 0)}
          />
          <p className="flex min-h-9 items-center gap-2 text-sm">
            {trying.value === undefined ? (
              <span className="text-soft">
                Click on the chart, or use its arrow keys, to try a value: the tape shows what it does.
              </span>
            ) : (
              <>
                <Button look="strong" onClick={trying.keep}>
                  Keep {formatShort(trying.value, shown)}
                </Button>
                <Button onClick={trying.letGo}>Let it go</Button>
                <span className="text-soft">tried; the tape shows what it does</span>
              </>
            )}
          </p>
          <LineChart
            label={`${shown.name}, swept: arrows try a value on the tape, Enter keeps it, Escape lets it go`}
            lines={linesOf(points, drawn?.plays ?? 1)}
            marks={marks}
            xWords={
              shown.swept.kind === "group"
                ? `${shown.name}, %`
                : `${shown.name}${shown.swept.kind === "length" ? (shown.swept.unit === "f" ? `, frames (1f is ${Math.round(10_000 / kit.rate) / 10} ms)` : ", ms") : ""}`
            }
            yWords={
              drawn?.hand
                ? "events a play of all takes"
                : `events in ${points[0]!.runs === 1 ? "the take" : "all takes"}`
            }
            yMost={undefined}
            formatX={x => formatShort(x, shown)}
            onPick={x => {
              const nearest = points
                .filter(({ runs }) => runs > 0)
                .sort((a, b) => Math.abs(a.value - x) - Math.abs(b.value - x))[0];
              if (nearest) trying.tryValue(shown.swept, nearest.value, shown.name);
            }}
            onKeyDown={event => handleKeys(event, points, at, shown, trying)}
          />
          {point && <PointWords point={point} choice={shown} rateHz={kit.rate} />}
        </>
      )}
      {shown && drawn?.two && study?.value && (
        <SweepField one={shown} two={drawn.two} rows={drawn.rows} cells={study.value} kit={base} />
      )}
    </section>
  );
}
