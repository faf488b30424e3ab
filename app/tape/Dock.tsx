import { memo, useCallback, useEffect, useState, type PointerEvent } from "react";
import { useStore } from "zustand";
import { usePad } from "../devices/usePad";
import { judged } from "../store/judged";
import { goToFrame } from "../store/playhead";
import { openTake } from "../store/workbench";
import { useEvaluated, useWorkbench } from "../store/useWorkbench";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { followPointer } from "../ui/followPointer";
import { LostList } from "./LostList";
import { Measure } from "./Measure";
import { Overview } from "./Overview";
import { TakeStrips } from "./TakeStrips";
import { Tape } from "./Tape";
import { TapeTable } from "./TapeTable";
import { Transport } from "./Transport";
import { VariantMenu } from "./VariantMenu";
import { tapeLook } from "./tapeStore";
import type { TapeView } from "./tapeView";

const LEAST_PX = 120;
/** What is left to the view above. */
const VIEW_PX = 200;
/** How high the tape stands at first: beside a rule it has few rows, and the rule's map wants the room. */
const HEIGHT_PX = { inShape: 250, elsewhere: 338 };
const STRIP_PX = 44;
/** Speeds the brush can paint, percent of full speed. */
const BRUSH_PERCENTS = [0, 25, 50, 75, 100, 200];

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
  const liveFrame = usePad(state => state.frame);
  const isLive = usePad(state => state.session !== undefined);
  const onView = useCallback((next: TapeView) => setView(next), []);
  const tool = useStore(tapeLook, look => look.tool);
  const brushPercent = useStore(tapeLook, look => look.brushPercent);
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
              kit && <LostList kit={kit} evaluated={evaluated} />
            )}
            <Transport frames={evaluated.trace.frames} />
          </>
        )}
        <JudgingNote />
        <span className="ml-auto flex items-center gap-1">
          {!isFolded && !isLive && evaluated && !isTable && tool === "look" && (
            <input
              type="search"
              aria-label="Find a row"
              placeholder="Find a row"
              className="w-28 rounded-full border border-line bg-leaf px-3 py-0.5 placeholder:text-soft"
              value={wanted}
              onChange={event => setWanted(event.target.value)}
            />
          )}
          {!isFolded && !isLive && evaluated && !isTable && (
            <Button
              look="quiet"
              aria-pressed={tool === "paint"}
              onClick={() => tapeLook.setState({ tool: tool === "paint" ? "look" : "paint" })}
            >
              {tool === "paint" ? "Painting" : "Paint"}
            </Button>
          )}
          {!isFolded && !isLive && evaluated && !isTable && tool === "paint" && (
            <ChoiceWord
              label="Speed to paint"
              value={String(brushPercent)}
              choices={BRUSH_PERCENTS.map(percent => ({
                value: String(percent),
                label: percent === 0 ? "freeze" : `${percent} % speed`,
              }))}
              onChoose={value => tapeLook.setState({ brushPercent: Number(value) })}
            />
          )}
          {!isFolded && !isLive && evaluated && (
            <Button
              look="quiet"
              aria-expanded={showsStrips}
              onClick={() => tapeLook.setState({ showsStrips: !showsStrips })}
            >
              {showsStrips ? "One take" : "All takes"}
            </Button>
          )}
          {!isFolded && !isLive && evaluated && !isTable && <VariantMenu />}
          {!isFolded && !isLive && evaluated && (
            <Button look="quiet" onClick={() => setTable(!isTable)}>
              {isTable ? "As tape" : "As table"}
            </Button>
          )}
          <Button look="quiet" onClick={() => setFolded(!isFolded)} aria-expanded={!isFolded}>
            {isFolded ? "Unfold" : "Fold away"}
          </Button>
        </span>
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
