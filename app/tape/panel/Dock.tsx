import { countWords } from "#core";
import {
  memo,
  useEffect,
  useEffectEvent,
  useRef,
  useState,
  type KeyboardEvent as ReactKeyboardEvent,
  type PointerEvent,
} from "react";
import { createStore } from "zustand/vanilla";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { followPointer } from "../../ui/followPointer";
import { useWindowHeight } from "../../ui/useMedia";
import { useStored } from "../../ui/useStored";
import { DockTools } from "./DockTools";
import { GameDifferences } from "./GameDifferences";
import { LostList } from "./LostList";
import { Measure } from "./Measure";
import { Overview } from "./Overview";
import { TakeStrips } from "./TakeStrips";
import { Tape } from "./Tape";
import { TapeTable } from "./TapeTable";
import { Transport } from "./Transport";
import {
  clampHeight,
  greatestPx,
  heightOf,
  LEAST_PX,
  levelPx,
  nextHeight,
  parseHeights,
  STRIP_PX,
  type ChosenHeights,
  type DockView,
} from "../model/dockHeights";
import { NO_VIEW, ROW_PX, RULER_PX, type TapeView } from "../model/tapeView";
import { useEvaluated, useEvaluation, usePlaybackControl } from "../../document/evaluationContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { usePad, usePadState } from "../../input/context";
import { LiveText } from "../../ui/LiveText";
import { useTapeLook } from "../hand/context";

export type { DockView };

/** The key under which this browser keeps the chosen heights. */
const HEIGHTS_KEY = "moss-tap-dock";

/** The height of the bar with its lower edge. */
const BAR_PX = 46;

/** The key that cycles the heights while no field has the focus and the pad is asleep. */
const CYCLE_KEY = "`";

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
        hint: countWords(Math.ceil(take.frames), "frame"),
      }))}
      onChoose={workbench.openTake}
    />
  );
});

/**
 * Returns the view whose height the dock takes. Prove that was opened without a check keeps the height of that until it is left, so
 * that the tape stays where it is while the first checks are made on it.
 */
function useDockView(view: DockView): DockView {
  const hasChecks = useDocument(state => state.checks.length > 0);
  const isLinked = usePadState(state => state.isLinked);
  const isWide = usePadState(state => state.isWide);
  const [opened, setOpened] = useState({ view, hasChecks });
  if (opened.view !== view) setOpened({ view, hasChecks });
  if (view === "prove") return opened.hasChecks ? view : "first-checks";
  if (view !== "play") return view;
  return isWide ? "wide" : isLinked ? "linked" : view;
}

/** The height of a view's dock, its setter, and a key that cycles it. */
function useDockHeight(view: DockView) {
  const [chosen, setChosen] = useStored<ChosenHeights>(HEIGHTS_KEY, parseHeights);
  const pad = usePad();
  const windowPx = useWindowHeight();
  const heightPx = heightOf(view, chosen, windowPx);
  const setHeight = (px: number) => setChosen({ ...chosen, [view]: clampHeight(px, windowPx) });
  const cycle = useEffectEvent(() => setHeight(nextHeight(heightPx, windowPx)));
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping =
        event.target instanceof Element && event.target.closest("input, textarea, [contenteditable]");
      if (
        event.key !== CYCLE_KEY ||
        event.ctrlKey ||
        isTyping ||
        (pad.getState().session && !pad.getState().isLinked)
      )
        return;
      event.preventDefault();
      cycle();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [pad]);
  return { heightPx, setHeight };
}

/** The grip at the dock's upper edge, moved by dragging or by keys; a double click fits the rows. */
function Grip({
  heightPx,
  onHeight,
  onFit,
}: {
  heightPx: number;
  onHeight: (px: number) => void;
  onFit: () => void;
}) {
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (!event.isPrimary) return;
    const fromY = event.clientY;
    followPointer(event, {
      move: moved => onHeight(heightPx + fromY - moved.clientY),
      end: () => undefined,
      cancel: () => onHeight(heightPx),
    });
  };
  const onKeyDown = (event: ReactKeyboardEvent<HTMLDivElement>) => {
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
      aria-valuemin={STRIP_PX}
      aria-valuemax={greatestPx(window.innerHeight)}
      title={`Drag to change the height of the tape, double click to fit its rows; ${CYCLE_KEY} cycles`}
      aria-valuetext={`${heightPx} px high`}
      tabIndex={0}
      className="absolute inset-x-0 -top-1.5 z-10 h-3 cursor-row-resize touch-none"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
      onDoubleClick={onFit}
    />
  );
}

/** The number of frames played so far, written without a render. */
function LiveFrame() {
  return (
    <LiveText
      store={usePad()}
      read={({ frame }) => `${Math.max(0, frame)}f`}
      className="font-mono font-normal text-soft"
    />
  );
}

/** The name of the open take, or the time played so far. */
function ShownTake({ isLive }: { isLive: boolean }) {
  const frames = useEvaluation(state => state.evaluated?.trace.frames);
  const hasTakes = useDocument(state => state.takes.length > 0);
  if (isLive)
    return (
      <b className="w-44 shrink-0 narrow:w-auto" data-testid="live-frame">
        Playing now <LiveFrame />
      </b>
    );
  if (!hasTakes) return <span className="w-44 shrink-0 text-soft narrow:w-auto">No take</span>;
  return (
    <span
      className="flex w-44 shrink-0 items-baseline gap-2 font-semibold narrow:w-auto narrow:max-w-44"
      data-testid="open-take"
    >
      <TakeChoice />
      {frames !== undefined && <span className="font-mono font-normal text-soft">{frames}f</span>}
    </span>
  );
}

/**
 * The tape's dock below every view: the choice of take, its overview, and the tape. It has a height of its own in each
 * view; at its lowest only the bar is left, whose overview scrubs.
 */
export function Dock({ view }: { view: DockView }) {
  const playback = usePlaybackControl();
  const [isTable, setTable] = useState(false);
  const [wanted, setWanted] = useState("");
  /** The visible part of the tape; its changes are drawn without a render of the dock. */
  const [views] = useState(() => createStore<TapeView>(() => NO_VIEW));
  const evaluated = useEvaluated();
  const isLive = usePadState(state => state.session !== undefined);
  const showsStrips = useTapeLook(look => look.showsStrips);
  const { heightPx, setHeight } = useDockHeight(useDockView(view));
  const isFolded = heightPx <= STRIP_PX;
  const setFolded = (isToFold: boolean) =>
    setHeight(isToFold ? STRIP_PX : levelPx("half", window.innerHeight));
  const rows = useRef(0);
  const fit = () => setHeight(BAR_PX + RULER_PX + rows.current * ROW_PX);
  const shown = isLive ? undefined : evaluated;

  return (
    <section
      aria-label="Tape"
      className="relative flex shrink-0 flex-col border-t-2 border-ink bg-paper contain-layout contain-size"
      style={{
        height: isFolded ? STRIP_PX : `max(${LEAST_PX}px, ${heightPx}px - var(--notices-px))`,
      }}
    >
      <Grip heightPx={heightPx} onHeight={setHeight} onFit={fit} />
      <div
        className={`flex h-[42px] shrink-0 items-center gap-4 border-b border-line px-5 text-sm ${isFolded ? "" : "max-xl:h-auto max-xl:min-h-[42px] max-xl:flex-wrap max-xl:gap-y-0 narrow:h-[42px] narrow:flex-nowrap"} narrow:gap-2 narrow:overflow-x-auto narrow:overflow-y-hidden narrow:[scrollbar-width:none] narrow:px-2`}
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
            <GameDifferences evaluated={shown} />
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
          <Tape onView={views.setState} rowCountRef={rows} wanted={wanted} />
        ))}
      {!isFolded && shown && <Measure rateHz={shown.program.rateHz} />}
    </section>
  );
}
