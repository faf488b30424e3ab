import { useEffect, useMemo, useRef, useState } from "react";
import { useStore } from "zustand";
import type { LiveSession } from "../../input/liveSession";
import { pad } from "../../input/pad";
import { usePad } from "../../input/usePad";
import { goToFrame, playhead } from "../../document/playhead";
import { kitOfProgram } from "../../judging/staged";
import { arrangeTape, compileOnce, workbench } from "../../document/workbench";
import { useCompiled, useEvaluated, useWorkbench } from "../../document/useWorkbench";
import { listChanges } from "../model/changes";
import { FateCard } from "./FateCard";
import { FrameCard } from "./FrameCard";
import { listHandles } from "../model/handles";
import { KeySheet } from "./KeySheet";
import { fateOfNote, fateOfPress, fatesOf, pathOfFate, placeOfWay, rowsOfFate } from "../model/pressOf";
import { applyStroke, beginPull, endPull, evaluatedNow, pullTo } from "../hand/tapeActions";
import { createTapeController, type TapeController } from "../hand/tapeController";
import { pressTapeKey } from "../hand/tapeKeys";
import { arrangeRows, foldRows, moveRow, type RowsWanted } from "../model/arrangeRows";
import { buildTape, createTapeBuilder, type TapeBuilder } from "../model/buildTape";
import { EMPTY_TAPE, findRow, keyOfRow, type TapeModel } from "../model/tapeRows";
import { tapeLook } from "../tapeLook";
import { useGhosts } from "./useGhosts";
import { QuietNote } from "./QuietNote";
import { RowChoice, useShownRows } from "./RowChoice";
import type { TapeView } from "../model/tapeView";

/** Opens the fate of what stands on a row at a frame: the note given, a mark there, or the press that is down. */
function openFate(model: TapeModel, row: number, frame: number, note = -1): void {
  const now = evaluatedNow();
  const found = model.rows[row];
  if (!now || !found) return tapeLook.setState({ fate: undefined });
  const mark = note >= 0 ? note : (found.markNote[found.markFrame.indexOf(frame)] ?? -1);
  const { program, trace } = now;
  if (mark >= 0) tapeLook.setState({ fate: fateOfNote(program, trace, mark) });
  else
    tapeLook.setState({
      fate: found.group === "controls" ? fateOfPress(program, trace, found, frame) : undefined,
    });
}

/** The drawn tape: the open take as judged by the kit as it stands, or what is being played right now. */
export function Tape({ onView, wanted }: { onView: (view: TapeView) => void; wanted: string }) {
  const open = useWorkbench(state => state.kit);
  const { program } = useCompiled();
  const evaluated = useEvaluated();
  const isLive = usePad(state => state.session !== undefined);
  const look = useStore(tapeLook);
  const canvas = useRef<HTMLCanvasElement>(null);
  const controller = useRef<TapeController | undefined>(undefined);
  const shownModel = useRef(EMPTY_TAPE);
  const wholeModel = useRef(EMPTY_TAPE);
  const [hover, setHover] = useState({ frame: -1, x: 0, y: 0 });
  const [rowKey, setRowKey] = useState("");
  const [isSheetOpen, setSheetOpen] = useState(false);
  const kit = (evaluated && kitOfProgram(evaluated.program)) ?? open;
  const takeId = evaluated?.take.id;
  const whole = useMemo(
    () =>
      kit && evaluated ? buildTape(kit, evaluated.program, evaluated.trace, evaluated.take) : EMPTY_TAPE,
    [kit, evaluated],
  );
  const rows = useWorkbench(state => state.rows);
  const isPainting = look.tool === "paint";
  const only = useShownRows(look.about, isLive ? undefined : whole);
  const fate = useMemo(
    () =>
      evaluated && look.fate && !isLive
        ? fatesOf(evaluated.program, evaluated.trace).find(
            item => item.control === look.fate?.control && item.frame === look.fate.frame,
          )
        : undefined,
    [evaluated, look.fate, isLive],
  );
  // While a window is pulled the rows stay as they are under the hand.
  const [held, setHeld] = useState<RowsWanted | undefined>();
  const wish = useMemo(() => {
    // The way of a press is shown whole, whatever rows were asked for.
    const also = fate && evaluated ? rowsOfFate(evaluated.program, whole, fate) : [];
    return held ?? { word: wanted, isPainting, only: only && new Set([...only, ...also]) };
  }, [held, wanted, isPainting, only, fate, evaluated, whole]);
  const shownWish = useRef(wish);
  const model = useMemo(() => arrangeRows(whole, rows, wish), [whole, rows, wish]);
  const row = findRow(model.rows, rowKey);
  const ghosts = useGhosts(evaluated, model);
  const changes = useMemo(
    () =>
      evaluated && look.before?.takeId === takeId && look.before
        ? listChanges(model, evaluated.program, look.before.trace, evaluated.trace)
        : [],
    [evaluated, look.before, model, takeId],
  );

  useEffect(() => {
    if (!canvas.current) return;
    const chooseRow = (at: number) => {
      const chosen = shownModel.current.rows[at];
      if (chosen) setRowKey(keyOfRow(chosen));
    };
    const made = createTapeController(canvas.current, {
      onHover: (frame, x, y) =>
        setHover(was => (was.frame === frame && was.frame < 0 ? was : { frame, x, y })),
      onChoose: choice => {
        if (choice.row >= 0) chooseRow(choice.row);
        openFate(shownModel.current, choice.row, choice.frame, choice.note);
      },
      onScrub: frame => goToFrame(frame, shownModel.current.frames),
      onView,
      handlesOf: at => {
        const { kit: now } = workbench.getState();
        const { program: sound } = compileOnce(now);
        const isSound = now && sound && kitOfProgram(sound) === now;
        return isSound ? listHandles(now, shownModel.current, at) : [];
      },
      onPullBegin: () => {
        setHeld(shownWish.current);
        beginPull();
      },
      onPull: pullTo,
      onPullEnd: isCancelled => {
        setHeld(undefined);
        endPull(isCancelled);
      },
      onStroke: (at, result) => {
        const painted = shownModel.current.rows[at];
        if (painted) applyStroke(painted, result);
      },
      onRow: chooseRow,
      onFold: group => arrangeTape(was => foldRows(was, group)),
      onMoveRow: (at, by) => {
        const before = workbench.getState().rows;
        const after = moveRow(before, wholeModel.current.rows, shownModel.current.rows, at, by);
        if (after === before) return false;
        const moved = [...shownModel.current.rows];
        moved.splice(at + by, 0, ...moved.splice(at, 1));
        shownModel.current = { ...shownModel.current, rows: moved };
        made.setModel(shownModel.current);
        arrangeTape(() => after);
        return true;
      },
      onStretch: (from, to) => tapeLook.setState({ stretch: { from, to } }),
    });
    controller.current = made;
    return () => made.destroy();
  }, [onView]);

  useEffect(() => {
    shownModel.current = model;
    wholeModel.current = whole;
    shownWish.current = wish;
    if (!isLive) controller.current?.setModel(model);
  }, [model, whole, wish, isLive]);

  const links = useMemo(
    () => (fate && evaluated ? pathOfFate(evaluated.program, model, fate) : []),
    [fate, evaluated, model],
  );
  useEffect(() => {
    controller.current?.setOverlay({ links, changes, stretch: look.stretch, ghosts });
  }, [links, changes, look.stretch, ghosts]);

  const revealed = useRef(look.fate);
  useEffect(() => {
    if (look.fate === revealed.current) return;
    revealed.current = look.fate;
    if (links.length > 0) controller.current?.revealPlace(placeOfWay(links));
  }, [look.fate, links]);

  useEffect(() => controller.current?.setTool(look.tool), [look.tool]);
  useEffect(() => controller.current?.setRow(row), [row]);

  useEffect(() => {
    if (tapeLook.getState().takeId === takeId) return controller.current?.reveal(playhead.getState().frame);
    tapeLook.setState({ takeId, fate: undefined, before: undefined, stretch: undefined, isLooping: false });
    playhead.setState({ frame: 0, isPlaying: false });
    controller.current?.showStretch(0, 8);
  }, [takeId]);

  useEffect(() => {
    controller.current?.setLive(isLive);
    if (!isLive) controller.current?.reveal(playhead.getState().frame);
    if (!isLive || !kit) return;
    let built: { session: LiveSession; builder: TapeBuilder } | undefined;
    return pad.subscribe(({ session }, before) => {
      if (!session || session.state.frame === before.frame) return;
      if (built?.session !== session) {
        const played = kitOfProgram(session.program) ?? kit;
        built = { session, builder: createTapeBuilder(played, session.program) };
      }
      const { rows: order } = workbench.getState();
      const shown = built.builder.extend(session.trace);
      controller.current?.setModel(arrangeRows(shown, order, { only }));
    });
  }, [isLive, kit, program, only]);

  return (
    <>
      <div className="relative min-h-0 grow">
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={`Tape of ${model.frames} frames, row ${model.rows[row]?.name ?? "none"}. Question mark lists its keys. The table view holds the same.`}
          className="absolute inset-0 h-full w-full touch-none"
          onKeyDown={event => {
            if (isLive || !controller.current || event.ctrlKey || event.metaKey) return;
            const target = {
              model,
              whole,
              controller: controller.current,
              row,
              chooseRow: (at: number) => model.rows[at] && setRowKey(keyOfRow(model.rows[at])),
              openFate: (at: number, frame: number) => openFate(model, at, frame),
              openSheet: () => setSheetOpen(true),
            };
            if (pressTapeKey(event, target)) event.preventDefault();
          }}
          data-testid="tape"
        />
        {(isLive ? look.about : model.frames > 0) && wanted === "" && (
          <div className="absolute top-1.5 left-3 flex max-w-[124px] text-sm">
            <RowChoice />
          </div>
        )}
        {!isLive && kit && evaluated && hover.frame >= 0 && (
          <FrameCard
            kit={kit}
            model={model}
            evaluated={evaluated}
            frame={hover.frame}
            besideX={hover.x}
            isPinned={false}
          />
        )}
        {!isLive && kit && kit === open && evaluated && look.about && (
          <QuietNote kit={kit} evaluated={evaluated} about={look.about} whole={whole} />
        )}
        {!isLive && model.frames === 0 && (
          <p className="pointer-events-none absolute inset-0 grid place-items-center text-soft">
            No take yet. Record one in Play, and every frame of it appears here.
          </p>
        )}
        <KeySheet isOpen={isSheetOpen} onClose={() => setSheetOpen(false)} />
      </div>
      {kit && evaluated && fate && <FateCard kit={kit} evaluated={evaluated} fate={fate} />}
    </>
  );
}
