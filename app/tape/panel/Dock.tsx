import { memo, useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { createStore } from "zustand/vanilla";
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
import { NO_VIEW, type TapeView } from "../model/tapeView";
import { useEvaluated, useEvaluation, usePlaybackControl } from "../../document/evaluationContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { usePad, usePadState } from "../../input/context";
import { useTapeLook } from "../hand/context";

const LEAST_PX = 120;
/** The minimum height left to the view above. */
const VIEW_PX = 200;
/** The initial height of the tape: beside a rule it has few rows, and the rule's map needs the room. */
const HEIGHT_PX = { inShape: 250, elsewhere: 338 };
const STRIP_PX = 44;

/** Shown when a long take has been in the worker for some time. */
function WorkingNote() {
  const askedAtMs = useEvaluation(state => state.askedAtMs);
  const trouble = useEvaluation(state => state.trouble);
  const [isSlow, setSlow] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSlow(askedAtMs !== undefined), askedAtMs === undefined ? 0 : 300);
    return () => clearTimeout(timer);
  }, [askedAtMs]);
  if (trouble) return <span className="text-foxglove">This take could not be worked out: {trouble}</span>;
  return isSlow && askedAtMs !== undefined ? (
    <span className="text-soft" role="status" data-testid="working-out">
      working out the whole take …
    </span>
  ) : null;
}

/** The choice of the open take. */
const TakeChoice = memo(function TakeChoice() {
  const workbench = useWorkbench();
  const takes = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
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
      onChoose={workbench.openTake}
    />
  );
});

/** The grip at the dock's upper edge, moved by dragging or by keys. */
function Grip({ heightPx, onHeight }: { heightPx: number; onHeight: (px: number) => void }) {
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (!event.isPrimary) return;
    const fromY = event.clientY;
    followPointer(event, {
      move: moved => onHeight(heightPx + fromY - moved.clientY),
      end: () => undefined,
      cancel: () => onHeight(heightPx),
    });
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const by = { ArrowUp: 24, ArrowDown: -24, PageUp: 120, PageDown: -120, Home: 9999, End: -9999 }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    onHeight(heightPx + by);
  };
  return (
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the tape"
      aria-valuenow={heightPx}
      aria-valuemin={LEAST_PX}
      aria-valuetext={`${heightPx} px high`}
      tabIndex={0}
      className="absolute inset-x-0 -top-1.5 z-10 h-3 cursor-row-resize touch-none"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    />
  );
}

/** The number of frames played so far, written without a render. */
function LiveFrame() {
  const pad = usePad();
  const text = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const write = ({ frame }: { readonly frame: number }) => {
      if (text.current) text.current.textContent = `${Math.max(0, frame)}f`;
    };
    write(pad.getState());
    return pad.subscribe(write);
  }, [pad]);
  return <span ref={text} className="font-mono font-normal text-soft" />;
}

/** The name of the open take, or the time played so far. */
function ShownTake({ isLive }: { isLive: boolean }) {
  const frames = useEvaluation(state => state.evaluated?.trace.frames);
  const hasTakes = useDocument(state => state.takes.length > 0);
  if (isLive)
    return (
      <b className="w-44 shrink-0" data-testid="live-frame">
        Playing now <LiveFrame />
      </b>
    );
  if (!hasTakes) return <span className="w-44 shrink-0 text-soft">No take</span>;
  return (
    <span className="flex w-44 shrink-0 items-baseline gap-2 font-semibold" data-testid="open-take">
      <TakeChoice />
      {frames !== undefined && <span className="font-mono font-normal text-soft">{frames}f</span>}
    </span>
  );
}

/**
 * The tape's dock below every view: the choice of take, its overview, and the tape. It can be resized and
 * folded.
 */
export function Dock() {
  const playback = usePlaybackControl();
  const [heights, setHeights] = useState(HEIGHT_PX);
  const [isFolded, setFolded] = useState(false);
  const [isTable, setTable] = useState(false);
  const [wanted, setWanted] = useState("");
  /** The visible part of the tape; its changes are drawn without a render of the dock. */
  const [views] = useState(() => createStore<TapeView>(() => NO_VIEW));
  const evaluated = useEvaluated();
  const isLive = usePadState(state => state.session !== undefined);
  const showsStrips = useTapeLook(look => look.showsStrips);
  const place = useTapeLook(look => (look.about ? "inShape" : "elsewhere"));
  const heightPx = heights[place];
  const setHeight = (px: number) => {
    setFolded(false);
    setHeights(was => ({ ...was, [place]: Math.max(LEAST_PX, Math.min(window.innerHeight - VIEW_PX, px)) }));
  };
  const shown = isLive ? undefined : evaluated;

  return (
    <section
      aria-label="Tape"
      className="relative flex shrink-0 flex-col border-t-2 border-ink bg-paper contain-layout contain-size"
      style={{ height: isFolded ? STRIP_PX : `max(${LEAST_PX}px, ${heightPx}px - var(--notices-px))` }}
    >
      <Grip heightPx={heightPx} onHeight={setHeight} />
      <div
        className={`flex h-[42px] shrink-0 items-center gap-4 border-b border-line px-5 text-sm ${isFolded ? "" : "max-lg:h-auto max-lg:flex-wrap max-lg:gap-y-0 max-lg:py-1"}`}
      >
        <ShownTake isLive={isLive} />
        {shown && (
          <>
            <Overview
              evaluated={shown}
              views={isTable || isFolded ? undefined : views}
              onGo={playback.goTo}
            />
            <LostList evaluated={shown} />
            <Transport frames={shown.trace.frames} />
          </>
        )}
        <WorkingNote />
        <DockTools
          hasTake={shown !== undefined}
          isFolded={isFolded}
          isTable={isTable}
          wanted={wanted}
          onFold={setFolded}
          onTable={setTable}
          onWanted={setWanted}
        />
      </div>
      {!isFolded && shown && showsStrips && <TakeStrips />}
      {!isFolded &&
        (isTable && shown ? (
          <TapeTable evaluated={shown} />
        ) : (
          <Tape onView={views.setState} wanted={wanted} />
        ))}
      {!isFolded && shown && <Measure rateHz={shown.program.rateHz} />}
    </section>
  );
}
