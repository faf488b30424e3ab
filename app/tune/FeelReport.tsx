import { useCallback, useEffect, useMemo, useState } from "react";
import {
  formatMoveFeel,
  formatPatternCounts,
  formatPromptCounts,
  isTight,
  nameOf,
  reportMoves,
  sumCounts,
  type Kit,
  type MoveFeel,
  type Program,
  type TakeFeel,
} from "#core";
import { useStudy, useStudying } from "../document/studiesContext";
import { useJudging } from "../judging/context";
import { TermWord } from "../ui/Explained";
import { Distribution } from "../maps/Distribution";
import { FeelPicture } from "./FeelPicture";
import { FeelSideBySide } from "./FeelSideBySide";
import { FrameLink } from "./FrameLink";
import { ListInParts } from "./ListInParts";
import { listFeelLanes } from "./model/feelLanes";
import { formatMiss, formatRoom } from "./model/feelWords";
import { StudyBar } from "./StudyBar";
import { useGroups } from "./useGroups";
import { KeptMarks } from "../ui/KeptMarks";

/** Takes with up to this total of frames are studied as soon as the report opens. */
const AT_ONCE_FRAMES = 36_000;
/** The number of items of each list that are shown first, most informative first, and with each request for more. */
const PART = 12;

function Details({ kit, feel }: { kit: Kit; feel: MoveFeel }) {
  const tight = feel.rooms.filter(isTight);
  const late = feel.delays.filter(({ total }) => total > 0);
  return (
    <div className="grid grid-cols-3 gap-x-6 gap-y-2 py-2 text-sm max-lg:grid-cols-1">
      <section aria-label="Tightest uses">
        <h3 className="font-semibold">{tight.length > 0 ? "Tight uses" : "Tightest uses"}</h3>
        <ListInParts
          part={PART}
          items={feel.rooms.map(room => () => (
            <FrameLink take={room.take} frame={room.frame} words={formatRoom(room)} />
          ))}
        />
        {feel.rooms.length === 0 && <p className="text-soft">No press was used for it.</p>}
      </section>
      <section aria-label="Narrowest losses">
        <h3 className="font-semibold">Narrowest losses</h3>
        <ListInParts
          part={PART}
          items={feel.misses.map(miss => () => (
            <FrameLink
              take={miss.take}
              frame={miss.frame}
              words={formatMiss(miss, move => nameOf(kit, "moves", kit.moves![move]!.id))}
            />
          ))}
        />
        {feel.misses.length === 0 && <p className="text-soft">None was lost for it.</p>}
      </section>
      <section aria-label="Longest delays">
        <h3 className="font-semibold">Acted late</h3>
        <ListInParts
          part={PART}
          items={late.map(delay => () => (
            <FrameLink
              take={delay.take}
              frame={delay.press}
              words={[
                `${delay.total}f`,
                ...(delay.pattern > 0 ? [`${delay.pattern}f to be sure`] : []),
                ...(delay.memory > 0 ? [`${delay.memory}f in the buffer`] : []),
                ...(delay.slow !== 0 ? [`${delay.slow}f of slow time`] : []),
              ].join(", ")}
            />
          ))}
        />
        {late.length === 0 && <p className="text-soft">Every one on the frame of its press.</p>}
        <Distribution
          words="All delays"
          label="Frames from press to performance"
          values={feel.delays.map(({ total }) => total)}
          upTo={Math.max(10, feel.delays[0]?.total ?? 0)}
        />
      </section>
    </div>
  );
}

/** A move as one line, which opens to its rooms, losses and delays; these are made when it is first opened. */
function MoveLine({
  kit,
  feel,
  nameOfMove,
}: {
  kit: Kit;
  feel: MoveFeel;
  nameOfMove: (move: number) => string;
}) {
  const [isOpened, setOpened] = useState(false);
  return (
    <li className="border-t border-line">
      <details onToggle={event => event.currentTarget.open && setOpened(true)}>
        <summary className="flex items-center gap-4 py-1.5">
          <span className="min-w-0 grow">
            <b>{nameOfMove(feel.move)}</b>: {formatMoveFeel(feel, nameOfMove)}
          </span>
        </summary>
        {isOpened && <Details kit={kit} feel={feel} />}
      </details>
    </li>
  );
}

/**
 * The prompts and patterns with their counts over the studied takes. `program` is the studied kit's. Until all takes are
 * studied, without those of which nothing was seen yet.
 */
function OtherRules({
  kit,
  program,
  feels,
  isWhole,
}: {
  kit: Kit;
  program: Program;
  feels: readonly TakeFeel[];
  isWhole: boolean;
}) {
  const counts = sumCounts(
    program,
    feels.map(feel => feel.counts),
  );
  const lines = [
    ...counts.prompts.map((own, p) => ({ id: program.prompts[p]!.id, list: "prompts", own }) as const),
    ...counts.patterns.map((own, p) => ({ id: program.patterns[p]!.id, list: "patterns", own }) as const),
  ]
    .filter(({ own }) => isWhole || ("shown" in own ? own.shown : own.formed + own.fired) > 0)
    .map(({ id, list, own }) => ({
      key: `${list} ${id}`,
      name: nameOf(kit, list, id),
      words:
        "shown" in own
          ? formatPromptCounts(own, kit.prompts?.find(prompt => prompt.id === id)?.grades)
          : formatPatternCounts(own),
    }));
  return (
    <ul className="mt-2 text-sm" aria-label="Prompts and patterns">
      {lines.map(({ key, name, words }) => (
        <li key={key} className="border-t border-line py-0.5">
          <b>{name}</b>: {words}
        </li>
      ))}
    </ul>
  );
}

/**
 * The feel of all moves as a picture, and each move as one line, which opens to rooms, losses and delays, each a link to
 * its frame.
 */
export function FeelReport({ kit }: { kit: Kit }) {
  const { judge } = useJudging();
  const studying = useStudying();
  const { takes, by, list: groups } = useGroups(Infinity);
  const study = useStudy("feel");
  const begin = () =>
    studying.begin("feel", {
      job: "feel",
      questions: [{ kit }],
      takes,
      merge: ([feels]) => feels ?? [],
    });
  const frames = takes.reduce((sum, take) => sum + take.frames, 0);
  const isDue = study === undefined && takes.length > 0 && frames <= AT_ONCE_FRAMES;
  useEffect(() => {
    if (isDue) begin();
    // Runs once, when the report first opens; repeating it is manual.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [isDue]);
  const feels = study?.value;
  const isWhole = study?.state === "done";
  const about = study?.kit ?? kit;
  // Figures are of the rules that were studied, by their places; the open kit may have others at the same ones.
  const program = useMemo(() => {
    const compiled = judge.compile(about);
    return compiled.ok ? compiled.value.program : undefined;
  }, [judge, about]);
  const moves = useMemo(() => (feels && program ? reportMoves(program, feels) : []), [feels, program]);
  const nameOfMove = useCallback((move: number) => nameOf(about, "moves", about.moves![move]!.id), [about]);
  const lanes = useMemo(() => listFeelLanes(moves, nameOfMove), [moves, nameOfMove]);
  return (
    <section aria-label="Feel report">
      <h2 className="font-serif text-2xl">How the takes feel</h2>
      <p className="text-sm text-soft">
        Every press that a move used is shifted frame by frame until the move is not performed with it any
        more: that is its{" "}
        <KeptMarks>
          <TermWord of="room">room</TermWord>. A lost one is shifted until it is saved.
        </KeptMarks>
      </p>
      <StudyBar name="feel" word="Study these takes" canBegin={takes.length > 0} onBegin={begin}>
        {study?.value && (
          <span className="text-soft">
            n = {study.value.length} of {study.takes.length} {study.takes.length === 1 ? "take" : "takes"}
          </span>
        )}
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to study: record one in Play.</p>}
      {by !== "none" && feels && program ? (
        <FeelSideBySide program={program} feels={feels} groups={groups} nameOfMove={nameOfMove} />
      ) : (
        <FeelPicture lanes={lanes} rateHz={about.rate} />
      )}
      <ul data-testid="feel-report" className="mt-3">
        {moves
          .filter(({ counts }) => isWhole || counts.asked > 0)
          .map(feel => (
            <MoveLine key={feel.move} kit={about} feel={feel} nameOfMove={nameOfMove} />
          ))}
      </ul>
      {feels && program && <OtherRules kit={about} program={program} feels={feels} isWhole={isWhole} />}
    </section>
  );
}
