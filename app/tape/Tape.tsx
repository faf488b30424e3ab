import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { pad } from "../devices/pad";
import { usePad } from "../devices/usePad";
import { goToFrame, playhead } from "../store/playhead";
import { workbench } from "../store/workbench";
import { useCompiled, useEvaluated, useWorkbench } from "../store/useWorkbench";
import { FrameCard } from "./FrameCard";
import { createTapeController, type TapeChoice, type TapeController } from "./tapeController";
import { buildTape, type TapeModel } from "./tapeModel";
import type { TapeView } from "./tapeView";

const EMPTY: TapeModel = { frames: 0, rateHz: 60, rows: [], modeFrame: [], modeId: [] };

const openTakeId = () => workbench.getState().openTakeId;

/** Keys of the tape while it has the focus and the pad sleeps. */
const STEP_KEYS: Readonly<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  PageUp: -10,
  PageDown: 10,
};

/** The drawn tape: the open take as judged by the kit as it stands, or what is being played right now. */
export function Tape({ onView }: { onView: (view: TapeView) => void }) {
  const kit = useWorkbench(state => state.kit);
  const { program } = useCompiled();
  const evaluated = useEvaluated();
  const isLive = usePad(state => state.session !== undefined);
  const canvas = useRef<HTMLCanvasElement>(null);
  const controller = useRef<TapeController | undefined>(undefined);
  const [hover, setHover] = useState({ frame: -1, x: 0, y: 0 });
  const [chosen, setChosen] = useState<{ takeId: string | undefined; choice: TapeChoice } | undefined>();
  const takeId = evaluated?.take.id;
  const model = useMemo(
    () => (kit && evaluated ? buildTape(kit, evaluated.program, evaluated.trace) : EMPTY),
    [kit, evaluated],
  );

  useEffect(() => {
    if (!canvas.current) return;
    const made = createTapeController(canvas.current, EMPTY, {
      onHover: (frame, x, y) =>
        setHover(was => (was.frame === frame && was.frame < 0 ? was : { frame, x, y })),
      onChoose: made => setChosen({ takeId: openTakeId(), choice: made }),
      onScrub: frame => goToFrame(frame, Number(canvas.current?.dataset.painted ?? 1)),
      onView,
    });
    controller.current = made;
    return () => made.destroy();
  }, [onView]);

  useEffect(() => {
    if (!isLive) controller.current?.setModel(model);
  }, [model, isLive]);

  const choice = !isLive && chosen?.takeId === takeId ? chosen?.choice : undefined;

  useEffect(() => {
    controller.current?.setChoice(choice);
  }, [choice]);

  useEffect(() => {
    playhead.setState({ frame: 0, isPlaying: false });
    controller.current?.showStretch(0, 8);
  }, [takeId]);

  useEffect(() => {
    controller.current?.setLive(isLive);
    if (!isLive || !kit) return;
    return pad.subscribe(({ session }, before) => {
      if (!session || session.state.frame === before.frame) return;
      controller.current?.setModel(buildTape(kit, session.program, session.trace));
    });
  }, [isLive, kit, program]);

  const onKeyDown = (event: KeyboardEvent) => {
    const frames = model.frames;
    const by = STEP_KEYS[event.key];
    if (by !== undefined) moveTo(playhead.getState().frame + by, frames);
    else if (event.key === "Home") moveTo(0, frames);
    else if (event.key === "End") moveTo(frames - 1, frames);
    else if (event.key === "+" || event.key === "=") controller.current?.zoom(1.25);
    else if (event.key === "-") controller.current?.zoom(0.8);
    else return;
    event.preventDefault();
  };
  const moveTo = (frame: number, frames: number) => {
    goToFrame(frame, frames);
    controller.current?.reveal(playhead.getState().frame);
  };
  const shown = hover.frame >= 0 ? hover : choice && { frame: choice.frame, x: 0, y: 0 };

  return (
    <div className="relative min-h-0 grow">
      <canvas
        ref={canvas}
        tabIndex={0}
        role="img"
        aria-label={`Tape of ${model.frames} frames. Arrow keys step a frame, plus and minus zoom. The table view holds the same.`}
        className="absolute inset-0 h-full w-full touch-none"
        onKeyDown={onKeyDown}
        data-testid="tape"
      />
      {!isLive && kit && evaluated && shown && (
        <FrameCard
          kit={kit}
          model={model}
          evaluated={evaluated}
          frame={shown.frame}
          besideX={shown.x}
          isPinned={hover.frame < 0}
        />
      )}
      {!isLive && model.frames === 0 && (
        <p className="pointer-events-none absolute inset-0 grid place-items-center text-soft">
          No take yet. Record one in Play, and every frame of it appears here.
        </p>
      )}
    </div>
  );
}
