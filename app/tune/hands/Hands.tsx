import { countWords, type Kit } from "#core";
import { useStudy } from "../../document/studiesContext";
import type { HandsColumn } from "../../document/studySettings";
import type { PlayedHands } from "../../judging/jobs/hands";
import { TermWord } from "../../ui/Explained";
import { Button } from "../../ui/Button";
import { formatOnsets, formatSeeds } from "../model/characters";
import {
  formatRowContrast,
  listCheckRows,
  listKeptRows,
  listRuleRows,
  sortByContrast,
  type ShareRow,
} from "../model/shareRows";
import { HiddenPicture } from "../HiddenPicture";
import { StudyBar } from "../StudyBar";
import { SO_FAR } from "../sweep/SweepWords";
import { LeftOut } from "../TakesWord";
import { HandSentences } from "./HandSentences";
import { HardestPresses } from "./HardestPresses";
import { PressSpread } from "./PressSpread";
import { percent } from "./ShareBar";
import { ShareRows } from "./ShareRows";
import { SharesDrawing } from "./SharesDrawing";
import { useHands, type HandsStudy } from "./useHands";

/** The button that fits a character to the takes, and the fitted character with its sample sizes. */
function FitLine({ study: { takes, beginFit, chooseFitted } }: { study: HandsStudy }) {
  const fit = useStudy("fit");
  const found = fit?.value;
  return (
    <div className="flex flex-wrap items-center gap-x-3 text-sm">
      <Button disabled={takes.length === 0 || fit?.state === "working"} onClick={beginFit}>
        Estimate a hand from these takes
      </Button>
      {found && (
        <span data-testid="fitted">
          Found: onset {formatOnsets(found.character)} (n ={" "}
          {countWords(found.onset.presses, "press", "presses")} in{" "}
          {countWords(found.onset.groups, "like group")}), length {found.character.lengthPercent} % (n ={" "}
          {found.length.presses}), fingers {found.character.fingersMs} ms (n = {found.fingers.presses}).{" "}
          <Button look="quiet" onClick={() => chooseFitted(found, fit.takes)}>
            Play with it
          </Button>
        </span>
      )}
    </div>
  );
}

const unwantedPerPlay = ({ unwanted, plays }: PlayedHands) => (unwanted / Math.max(1, plays)).toFixed(2);

/** The unwanted events a play, and who played: the onsets of fitted hands, with the presses played around their aim. */
function PlayedLines({
  columns,
  results,
}: {
  columns: readonly HandsColumn[];
  results: readonly (PlayedHands | undefined)[];
}) {
  const isHandNamed = new Set(columns.map(({ hand }) => hand)).size > 1;
  const titles = columns.map(({ group, hand }) =>
    [group, isHandNamed ? hand : ""].filter(Boolean).join(", "),
  );
  const isSame = results.length > 1 && new Set(results.map(one => one && unwantedPerPlay(one))).size === 1;
  const unwanted = results.flatMap((result, k) =>
    result ? [`${isSame ? "" : titles[k]} ${unwantedPerPlay(result)}`.trim()] : [],
  );
  const fitted = results.flatMap((result, k) => (result?.aims ? [{ result, title: titles[k] }] : []));
  return (
    <ul className="mt-1 text-sm text-soft">
      <li data-testid="unwanted">
        <TermWord of="unwanted">Unwanted</TermWord>, a play:{" "}
        {isSame ? `${unwanted[0]} for each` : unwanted.join(", ")}
      </li>
      {fitted.length > 0 && (
        <li data-testid="aims">
          {fitted.map(({ result, title }) => (
            <span key={title} className="mr-4 inline-block">
              {title && <b>{title}: </b>}
              {formatOnsets(result.character)}; {result.aimed} of{" "}
              {countWords(result.presses.length, "press", "presses")} aimed
            </span>
          ))}
          <span className="inline-block">
            (played around the mean of their like; the others around where they were recorded)
          </span>
        </li>
      )}
    </ul>
  );
}

/** The studied takes, plays and seeds of a result. */
function PlayedWords({
  study,
  results,
  isWhole,
}: {
  study: HandsStudy;
  results: readonly PlayedHands[];
  /** Whether every group has been played. */
  isWhole: boolean;
}) {
  const { asked } = study.settings;
  const [first] = results;
  if (!first || !asked) return null;
  const plays = results.reduce((sum, result) => sum + result.plays, 0);
  return (
    <span className="text-soft">
      n = {countWords(plays, "play")}
      {!isWhole && " so far"}, {formatSeeds(asked.seed, asked.count)}; 95 % intervals over{" "}
      {first.takes > 1 ? `the ${asked.groups === "none" ? first.takes : ""} takes` : "the plays"}
      {study.isOther && <b className="text-foxglove">; this answers the question before it was changed</b>}
    </span>
  );
}

/** Takes repeated by simulated players: the success of each rule, press and check, with its interval. */
export function Hands({ kit }: { kit: Kit }) {
  const study = useHands(kit);
  const played = useStudy("hands");
  const { takes, begin } = study;
  const { drawn, asked } = study.settings;
  const results = played?.value ?? [];
  const isWhole = played?.state === "done";
  const about = played?.kit ?? kit;
  const sides = asked?.two ? 2 : 1;
  const firsts = results.filter(
    (result, k): result is PlayedHands => result !== undefined && k % sides === 0,
  );
  const isGrouped = asked !== undefined && asked.groups !== "none";
  const ordered = (rows: readonly ShareRow[]) => (isGrouped ? sortByContrast(rows) : rows);
  const rules = listRuleRows(about, results);
  const checkRows = ordered(listCheckRows(played, results));
  const contrast =
    isGrouped &&
    sides === 1 &&
    formatRowContrast(
      rules,
      drawn.map(({ group }) => group),
      percent,
    );
  return (
    <section aria-label="Hands">
      <h2 className="font-serif text-2xl">Who can play it</h2>
      <p className="text-sm text-soft">
        The takes are played many times, each press a little earlier or later: every rule, press and check has
        the share of plays in which it succeeds.
      </p>
      <HandSentences study={study} />
      <FitLine study={study} />
      <StudyBar name="hands" word="Run the simulation" canBegin={takes.length > 0} onBegin={begin}>
        <PlayedWords study={study} results={firsts} isWhole={isWhole} />
        <LeftOut groups={study.left} />
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to play: record one in Play.</p>}
      {contrast && (
        <p className="font-semibold" data-testid="hands-contrast">
          {!isWhole && SO_FAR}
          {contrast}
        </p>
      )}
      <ShareRows
        label="Kept: meant presses that some move or prompt uses, also those not used in the take"
        caption={
          <>
            <TermWord of="kept">Kept</TermWord>: <TermWord of="meant">meant presses</TermWord> that some move
            or prompt uses, also those not used in the take
          </>
        }
        columns={drawn}
        rows={listKeptRows(results)}
      />
      {firsts.length > 0 && <PlayedLines columns={drawn} results={results} />}
      <ShareRows
        label="By rule: how many of the meant presses on its controls it uses"
        columns={drawn}
        rows={ordered(rules)}
      />
      <ShareRows label="By check: how often it holds" columns={drawn} rows={checkRows} />
      {results.length > 0 && (
        <HiddenPicture
          file="hands"
          name="Hands: shares of plays"
          lines={["bar: share; line: its 95 % interval; then hits of n"]}
        >
          {ref => (
            <SharesDrawing
              columns={drawn}
              rows={[...listKeptRows(results), ...ordered(rules), ...checkRows]}
              ref={ref}
            />
          )}
        </HiddenPicture>
      )}
      <HardestPresses results={firsts} kit={about} study={study} isWhole={isWhole} />
      <PressSpread kit={about} />
    </section>
  );
}
