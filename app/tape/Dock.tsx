import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { useCallback, useEffect, useState, type PointerEvent } from "react";
import { useStore } from "zustand";
import { formatMs } from "#core";
import { usePad } from "../devices/usePad";
import { judged } from "../store/judged";
import { goToFrame, playhead } from "../store/playhead";
import { openTake } from "../store/workbench";
import { useEvaluated, useWorkbench } from "../store/useWorkbench";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { LostList } from "./LostList";
import { Overview } from "./Overview";
import { Tape } from "./Tape";
import { TapeTable } from "./TapeTable";
import { actOnStretch, toggleReplay, type StretchAct } from "./tapeActions";
import { SPEEDS, tapeLook } from "./tapeStore";
import type { TapeView } from "./tapeView";

const LEAST_PX = 120;
const STRIP_PX = 44;

const SPEED_WORDS = ["1/8", "1/4", "1/2", "1", "2"] as const;

function Transport({ frames }: { frames: number }) {
  const { frame, isPlaying } = useStore(playhead);
  const speed = useStore(tapeLook, look => look.speed);
  return (
    <span className="flex items-center" role="group" aria-label="Replay">
      <Button
        look="quiet"
        aria-label="−1f, one frame back"
        onClick={() => goToFrame(frame - 1, frames)}
        disabled={frame <= 0}
      >
        −1f
      </Button>
      <Button look="quiet" onClick={toggleReplay}>
        {isPlaying ? "Stop" : "Replay"}
      </Button>
      <Button
        look="quiet"
        aria-label="+1f, one frame on"
        onClick={() => goToFrame(frame + 1, frames)}
        disabled={frame >= frames - 1}
      >
        +1f
      </Button>
      <ChoiceWord
        label="Speed"
        value={String(speed)}
        choices={SPEEDS.map((value, i) => ({ value: String(value), label: `${SPEED_WORDS[i]}×` }))}
        onChoose={value => tapeLook.setState({ speed: Number(value) })}
      />
      <span className="w-14 text-right font-mono text-sm" data-testid="playhead">
        {frame}f
      </span>
    </span>
  );
}

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

const STRETCH_ACTS: readonly (readonly [StretchAct, string])[] = [
  ["cut", "Cut (X)"],
  ["copy", "Copy (C)"],
  ["paste", "Paste at the playhead (V)"],
  ["earlier", "A frame earlier (,)"],
  ["later", "A frame later (.)"],
  ["repeat", "Repeat after itself (R)"],
  ["wipe", "Wipe (Delete)"],
];

/** The stretch that is measured: how long it is, looped or not, and how to let it go. */
function Measure({ rateHz }: { rateHz: number }) {
  const { stretch, isLooping } = useStore(tapeLook);
  if (!stretch) return null;
  const frames = stretch.to - stretch.from;
  return (
    <span className="flex items-center gap-1 whitespace-nowrap" data-testid="measure">
      <span className="font-mono">
        {stretch.from}–{stretch.to}: <b>{frames}f</b> {formatMs(frames, rateHz)}
      </span>
      <Button
        look="quiet"
        aria-pressed={isLooping}
        onClick={() => tapeLook.setState({ isLooping: !isLooping })}
      >
        {isLooping ? "Looping" : "Loop"}
      </Button>
      <Menu>
        <MenuButton className="px-2 py-1 text-moss underline-offset-4 hover:underline">Edit</MenuButton>
        <MenuItems
          anchor="top end"
          className="z-30 rounded-stone border border-line bg-leaf p-1 text-sm shadow-lg focus:outline-none"
        >
          {STRETCH_ACTS.map(([act, words]) => (
            <MenuItem key={act}>
              <button
                type="button"
                className="block w-full rounded-xl px-3 py-1.5 text-left data-focus:bg-sand"
                onClick={() => actOnStretch(act)}
              >
                {words}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
      <Button
        look="quiet"
        aria-label="Let the stretch go"
        onClick={() => tapeLook.setState({ stretch: undefined, isLooping: false })}
      >
        ×
      </Button>
    </span>
  );
}

/** The tape's dock, under every view: which take, the whole of it, and the tape itself. Can be resized and folded away. */
export function Dock() {
  const [heightPx, setHeight] = useState(338);
  const [isFolded, setFolded] = useState(false);
  const [isTable, setTable] = useState(false);
  const [wanted, setWanted] = useState("");
  const [view, setView] = useState<TapeView | undefined>();
  const kit = useWorkbench(state => state.kit);
  const takes = useWorkbench(state => state.takes);
  const evaluated = useEvaluated();
  const liveFrame = usePad(state => state.frame);
  const isLive = usePad(state => state.session !== undefined);
  const onView = useCallback((next: TapeView) => setView(next), []);
  const tool = useStore(tapeLook, look => look.tool);
  const hasStretch = useStore(tapeLook, look => look.stretch !== undefined);

  const onGrip = (event: PointerEvent<HTMLDivElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const fromY = event.clientY;
    const grip = event.currentTarget;
    const move = (moved: globalThis.PointerEvent) => {
      setFolded(false);
      setHeight(Math.max(LEAST_PX, Math.min(window.innerHeight - 200, heightPx + fromY - moved.clientY)));
    };
    const end = () => {
      grip.removeEventListener("pointermove", move);
      grip.removeEventListener("pointerup", end);
    };
    grip.addEventListener("pointermove", move);
    grip.addEventListener("pointerup", end);
  };

  return (
    <section
      aria-label="Tape"
      className="relative flex shrink-0 flex-col border-t-2 border-ink bg-paper"
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
          if (event.key === "ArrowUp") setHeight(Math.min(window.innerHeight - 200, heightPx + 24));
          if (event.key === "ArrowDown") setHeight(Math.max(LEAST_PX, heightPx - 24));
        }}
      />
      <div className="flex h-[42px] shrink-0 items-center gap-4 border-b border-line px-5 text-sm">
        {isLive ? (
          <b className="w-44 shrink-0" data-testid="live-frame">
            Playing now <span className="font-mono font-normal text-soft">{Math.max(0, liveFrame)}f</span>
          </b>
        ) : evaluated ? (
          <span className="flex w-44 shrink-0 items-baseline gap-2 font-semibold" data-testid="open-take">
            <ChoiceWord
              label="Take"
              value={evaluated.take.id}
              choices={takes.map(take => ({
                value: take.id,
                label: take.name,
                hint: `${Math.ceil(take.frames)} frames`,
              }))}
              onChoose={openTake}
            />
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
          {!isFolded && !isLive && evaluated && !isTable && (
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
      {!isFolded &&
        (isTable && evaluated && !isLive ? (
          <TapeTable evaluated={evaluated} />
        ) : (
          <Tape onView={onView} wanted={wanted} />
        ))}
    </section>
  );
}
