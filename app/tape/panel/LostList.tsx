import { memo, useMemo, useState, type ReactNode } from "react";
import { countWords, formatFate, formatMs, formatRepair, type Fate, type Repair } from "#core";
import { useEvaluated, usePlaybackControl } from "../../document/evaluationContext";
import { useJudging } from "../../judging/context";
import { Button } from "../../ui/Button";
import { TermWord } from "../../ui/Explained";
import { Flap } from "../../ui/Flap";
import { useTape } from "../hand/context";
import { listPresses, type Late, type PressLists } from "../model/outcomes";
import { useRepairs } from "./useRepairs";
import type { Evaluated } from "../../judging/judge";

interface Lost {
  readonly fate: Fate;
  readonly repair: Repair | undefined;
}

/** The number of presses per page; repairs are searched for as many. */
const PAGE = 200;
const SEARCHED = 500;
/** The number of presses searched first: those that were buffered longest. */
const FIRST = 10;

/** Describes the order of the list and the progress of the search for repairs. */
function formatSearch(lost: number, done: number, isWhole: boolean): string {
  const searched = Math.min(lost, SEARCHED);
  const which = lost > SEARCHED ? `the first ${SEARCHED} ` : "";
  if (!isWhole) return `Looking for what would have saved ${which || "them"}: ${done} of ${searched}`;
  return lost > SEARCHED
    ? `Of ${which}those nearest to being saved first, then the others in their order`
    : "Nearest to being saved first";
}

/** Returns the longest time a lost press was buffered, in frames. */
function waitedInVain({ losses }: Fate): number {
  return losses.reduce((most, { made, frame }) => Math.max(most, frame - made), 0);
}

/** Returns the presses to search, those buffered longest first. */
function orderSearched(lost: readonly Fate[]): readonly Fate[] {
  const some = lost.slice(0, SEARCHED);
  const worst = [...some]
    .sort((a, b) => waitedInVain(b) - waitedInVain(a) || a.frame - b.frame)
    .slice(0, FIRST);
  return [...worst, ...some.filter(fate => !worst.includes(fate))];
}

/** A press in a list: a click goes to its frame and shows its fate on the tape. */
function FateItem({ fate, close, children }: { fate: Fate; close: () => void; children: ReactNode }) {
  const playback = usePlaybackControl();
  const { look } = useTape();
  return (
    <li>
      <button
        type="button"
        className="block w-full rounded-xl px-3 py-1.5 text-left hover:bg-sand focus-visible:bg-sand"
        onClick={() => {
          playback.goTo(fate.frame);
          look.setState({ fate });
          close();
        }}
      >
        {children}
      </button>
    </li>
  );
}

/**
 * Every lost press of the open take, nearest miss first; a worker computes the repairs when the list is
 * opened.
 */
function LostPresses({
  evaluated,
  lost,
  close,
}: {
  evaluated: Evaluated;
  lost: readonly Fate[];
  close: () => void;
}) {
  const [shown, setShown] = useState(PAGE);
  const searched = useMemo(() => orderSearched(lost), [lost]);
  const { found, done, isWhole, trouble } = useRepairs(evaluated, { fates: searched, isNearestOnly: true });
  const list = useMemo(() => {
    const near = searched.map((fate, i): Lost => ({ fate, repair: found[i]?.[0] }));
    const far = ({ repair }: Lost) => repair?.byFrames ?? Infinity;
    // In the order of the search until it is complete, so that nothing moves below the pointer.
    if (isWhole)
      near.sort((a, b) => (far(a) === far(b) ? 0 : far(a) - far(b)) || a.fate.frame - b.fate.frame);
    return [...near, ...lost.slice(SEARCHED).map((fate): Lost => ({ fate, repair: undefined }))];
  }, [lost, searched, found, isWhole]);
  return (
    <>
      <p className="px-3 py-1 text-soft" role="status">
        {trouble
          ? `What would have saved them was not found: ${trouble}`
          : formatSearch(lost.length, done, isWhole)}
      </p>
      <ul data-testid="lost-list">
        {list.slice(0, shown).map(({ fate, repair }) => (
          <FateItem key={`${fate.control} ${fate.frame}`} fate={fate} close={close}>
            {formatFate(evaluated.rules, evaluated.trace, fate)}{" "}
            {repair && (
              <b className="text-foxglove">
                Saved by {repair.byFrames}f. {formatRepair(evaluated.rules.kit, repair)}.
              </b>
            )}
          </FateItem>
        ))}
      </ul>
      {list.length > shown && (
        <Button look="quiet" onClick={() => setShown(shown + PAGE)}>
          Show {Math.min(PAGE, list.length - shown)} more
        </Button>
      )}
    </>
  );
}

/** Every press of the open take that was performed late, longest delay first. */
function LatePresses({
  evaluated,
  late,
  close,
}: {
  evaluated: Evaluated;
  late: readonly Late[];
  close: () => void;
}) {
  const [shown, setShown] = useState(PAGE);
  return (
    <>
      <p className="px-3 py-1 text-soft">Remembered, and performed late; the longest first</p>
      <ul data-testid="late-list">
        {late.slice(0, shown).map(({ fate, waited }) => (
          <FateItem key={`${fate.control} ${fate.frame}`} fate={fate} close={close}>
            <b>{waited}f late</b> ({formatMs(waited, evaluated.program.rateHz)}).{" "}
            {formatFate(evaluated.rules, evaluated.trace, fate)}
          </FateItem>
        ))}
      </ul>
      {late.length > shown && (
        <Button look="quiet" onClick={() => setShown(shown + PAGE)}>
          Show {Math.min(PAGE, late.length - shown)} more
        </Button>
      )}
    </>
  );
}

/** Returns the lists of presses of a judged take. */
function usePressLists(evaluated: Evaluated): PressLists {
  const { judge } = useJudging();
  const { presses } = judge.outcomesOf(evaluated);
  return useMemo(() => listPresses(presses), [presses]);
}

/** The opened list: of the presses that were lost, or of those performed late. */
function ListOf({ of, close }: { of: "lost" | "late"; close: () => void }) {
  const evaluated = useEvaluated();
  return evaluated && <OpenList of={of} evaluated={evaluated} close={close} />;
}

function OpenList({
  of,
  evaluated,
  close,
}: {
  of: "lost" | "late";
  evaluated: Evaluated;
  close: () => void;
}) {
  const { lost, late } = usePressLists(evaluated);
  return of === "lost" ? (
    <LostPresses evaluated={evaluated} lost={lost} close={close} />
  ) : (
    <LatePresses evaluated={evaluated} late={late} close={close} />
  );
}

/** A count of presses that opens their list. It renders when the count changes, which most steps of a number leave as it is. */
const CountFlap = memo(function CountFlap({ of, count }: { of: "lost" | "late"; count: number }) {
  return (
    <Flap
      word={
        of === "late" ? (
          `${count} late`
        ) : (
          <>
            <svg aria-hidden width="14" height="14" viewBox="0 0 14 14">
              <path
                d="M3 11a5.2 5.2 0 1 1 7.5-.6"
                fill="none"
                className="stroke-foxglove"
                strokeWidth="2.4"
              />
            </svg>
            {countWords(count, "press", "presses")} lost
          </>
        )
      }
      wordLook="flex items-center gap-1.5 whitespace-nowrap underline-offset-4 hover:underline"
      anchor="top"
      panelLook="max-h-80 w-[460px] p-2"
    >
      {close => <ListOf of={of} close={close} />}
    </Flap>
  );
});

/** The number of presses of the open take that were lost, unused or late, each with its list. */
export function LostList({ evaluated }: { evaluated: Evaluated }) {
  const { lost, silent, late } = usePressLists(evaluated);
  return (
    <span className="flex items-center gap-3">
      {lost.length === 0 ? (
        <span className="whitespace-nowrap text-soft">
          no press <TermWord of="lost">lost</TermWord>
          {silent.length > 0 && (
            <>
              , {silent.length} <TermWord of="withoutEffect">without effect</TermWord>
            </>
          )}
        </span>
      ) : (
        <CountFlap of="lost" count={lost.length} />
      )}
      {late.length > 0 && <CountFlap of="late" count={late.length} />}
    </span>
  );
}
