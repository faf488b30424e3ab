import { memo, useCallback, useEffect, useState, type PointerEvent } from "react";
import { useStore } from "zustand";
import { usePad } from "../../input/usePad";
import { judged } from "../../judging/judged";
import { kitOfProgram } from "../../judging/staged";
import { goToFrame } from "../../document/playhead";
import { openTake } from "../../document/workbench";
import { useEvaluated, useWorkbench } from "../../document/useWorkbench";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { followPointer } from "../../ui/followPointer";
import { DockTools } from "./DockTools";
import { LostList } from "./LostList";
import { Measure } from "./Measure";
import { Overview } from "./Overview";
import { TakeStrips } from "./TakeStrips";
import { Tape } from "./Tape";
import { TapeTable } from "./TapeTable";
import { Transport } from "./Transport";
import { tapeLook } from "../tapeLook";
import type { TapeView } from "../model/tapeView";

const LEAST_PX = 120;
/** What is left to the view above. */
const VIEW_PX = 200;
/** How high the tape stands at first: beside a rule it has few rows, and the rule's map wants the room. */
const HEIGHT_PX = { inShape: 250, elsewhere: 338 };
const STRIP_PX = 44;
/** Said when a long take has been at the worker for a while. */
function JudgingNote() {
  const { askedAtMs, trouble } = useStore(judged);
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(askedAtMs !== undefined), askedAtMs === undefined ? 0 : 300);
    return () => clearTimeout(timer);
  }, [askedAtMs]);
  if (trouble) return <span className="text-foxglove">This take could not be judged: {trouble}</span>;
  return isLong && askedAtMs !== undefined ? (
    <span className="text-soft" role="status">
      judging the whole take …
    </span>
  ) : null;
}

/** Which of the kit's takes is open. */
const TakeChoice = memo(function TakeChoice() {
  const takes = useWorkbench(state => state.takes);
  const openId = useWorkbench(state => state.openTakeId);
  return (
    <ChoiceWord
      label="Take"
      isTight
      value={openId ?? ""}
      choices={takes.map(take => ({
        value: take.id,
        label: take.name,
        hint: `${Math.ceil(take.frames)} frames`,
      }))}
      onChoose={openTake}
    />
  );
});

/** The tape's dock, under every view: which take, the whole of it, and the tape itself. Can be resized and folded away. */
export function Dock() {
  const [heights, setHeights] = useState(HEIGHT_PX);
  const [isFolded, setFolded] = useState(false);
  const [isTable, setTable] = useState(false);
  const [wanted, setWanted] = useState("");
  const [view, setView] = useState<TapeView | undefined>();
  const kit = useWorkbench(state => state.kit);
  const evaluated = useEvaluated();
  const judgedBy = evaluated && (kitOfProgram(evaluated.program) ?? kit);
  const liveFrame = usePad(state => state.frame);
  const isLive = usePad(state => state.session !== undefined);
  const onView = useCallback((next: TapeView) => setView(next), []);
  const showsStrips = useStore(tapeLook, look => look.showsStrips);
  const place = useStore(tapeLook, look => (look.about ? "inShape" : "elsewhere"));
  const heightPx = heights[place];
  const setHeight = (px: number) =>
    setHeights(was => ({ ...was, [place]: Math.max(LEAST_PX, Math.min(window.innerHeight - VIEW_PX, px)) }));
  const hasStretch = useStore(tapeLook, look => look.stretch !== undefined);

  const onGrip = (event: PointerEvent<HTMLDivElement>) => {
    const fromY = event.clientY;
    followPointer(event, {
      move(moved) {
        setFolded(false);
        setHeight(heightPx + fromY - moved.clientY);
      },
      end: () => undefined,
      cancel: () => setHeight(heightPx),
    });
  };

  return (
    <section
      aria-label="Tape"
      className="relative flex shrink-0 flex-col border-t-2 border-ink bg-paper contain-layout contain-size"
      style={{ height: isFolded ? STRIP_PX : heightPx }}
    >
      <div
        role="separator"
        aria-orientation="horizontal"
        aria-label="Height of the tape"
        aria-valuenow={heightPx}
        tabIndex={0}
        className="absolute inset-x-0 -top-1.5 z-10 h-3 cursor-row-resize touch-none"
        onPointerDown={onGrip}
        onKeyDown={event => {
          if (event.key === "ArrowUp") setHeight(heightPx + 24);
          if (event.key === "ArrowDown") setHeight(heightPx - 24);
        }}
      />
      <div
        className={`flex h-[42px] shrink-0 items-center gap-4 border-b border-line px-5 text-sm ${isFolded ? "" : "max-lg:h-auto max-lg:flex-wrap max-lg:gap-y-0 max-lg:py-1"}`}
      >
        {isLive ? (
          <b className="w-44 shrink-0" data-testid="live-frame">
            Playing now <span className="font-mono font-normal text-soft">{Math.max(0, liveFrame)}f</span>
          </b>
        ) : evaluated ? (
          <span className="flex w-44 shrink-0 items-baseline gap-2 font-semibold" data-testid="open-take">
            <TakeChoice />
            <span className="font-mono font-normal text-soft">{evaluated.trace.frames}f</span>
          </span>
        ) : (
          <span className="w-44 shrink-0 text-soft">No take</span>
        )}
        {evaluated && !isLive && (
          <>
            <Overview
              trace={evaluated.trace}
              view={isTable || isFolded ? undefined : view}
              onGo={frame => goToFrame(frame, evaluated.trace.frames)}
            />
            {hasStretch ? (
              <Measure rateHz={evaluated.program.rateHz} />
            ) : (
              judgedBy && <LostList kit={judgedBy} evaluated={evaluated} />
            )}
            <Transport frames={evaluated.trace.frames} />
          </>
        )}
        <JudgingNote />
        <DockTools
          hasTake={!isLive && evaluated !== undefined}
          isFolded={isFolded}
          isTable={isTable}
          wanted={wanted}
          onFold={setFolded}
          onTable={setTable}
          onWanted={setWanted}
        />
      </div>
      {!isFolded && !isLive && evaluated && showsStrips && <TakeStrips />}
      {!isFolded &&
        (isTable && evaluated && !isLive ? (
          <TapeTable evaluated={evaluated} />
        ) : (
          <Tape onView={onView} wanted={wanted} />
        ))}
    </section>
  );
}
