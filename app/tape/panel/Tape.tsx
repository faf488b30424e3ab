import { countWords } from "#core";
import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from "react";
import {
  useEvaluation,
  useEvaluationStore,
  usePlayback,
  usePlaybackControl,
} from "../../document/evaluationContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import { useChecking } from "../../document/checksContext";
import { usePadState } from "../../input/context";
import { useTape, useTapeLook } from "../hand/context";
import { createTapeController, type TapeController } from "../hand/tapeController";
import { pressTapeKey } from "../hand/tapeKeys";
import { foldRows, moveRow } from "../model/arrangeRows";
import { listHandles } from "../model/handles";
import { fateOfNote, fateOfPress, placeOfWay } from "../model/pressOf";
import { findRow, keyOfRow, type TapeModel } from "../model/tapeRows";
import type { TapeView } from "../model/tapeView";
import { FateCard } from "./FateCard";
import { FrameCard } from "./FrameCard";
import { KeySheet } from "./KeySheet";
import { QuietNote } from "./QuietNote";
import { RowChoice } from "./RowChoice";
import { SpokenFrame } from "./SpokenFrame";
import { useGhosts } from "./useGhosts";
import { useLiveTape } from "./useLiveTape";
import { useTapeModel, type ShownTape } from "./useTapeModel";

/** The zoom at which a take is opened. */
const OPENING_PX_PER_FRAME = 8;

const NO_OVERLAY = { links: [], changes: [], stretch: undefined, ghosts: [] };

interface Hover {
  readonly frame: number;
  readonly x: number;
  readonly isUpper: boolean;
}

/** Returns the frame of the first press of a take; 0 if there is none. */
function firstPress({ rows }: TapeModel): number {
  const first = Math.min(
    ...rows.map(row => (row.group === "controls" ? (row.spanFrom[0] ?? Infinity) : Infinity)),
  );
  return Number.isFinite(first) ? first : 0;
}

/** Selects the press behind a row at a frame: by the given note, a mark there, or the press that is down. */
function useOpenFate(): (model: TapeModel, row: number, frame: number, note?: number) => void {
  const evaluation = useEvaluationStore();
  const { judge } = useJudging();
  const { look } = useTape();
  return (model, row, frame, note = -1) => {
    const { evaluated } = evaluation.getState();
    const found = model.rows[row];
    if (!evaluated || !found) return look.setState({ fate: undefined });
    const { program, trace } = evaluated;
    const fates = judge.outcomesOf(evaluated).presses;
    const mark = note >= 0 ? note : (found.markNote[found.markFrame.indexOf(frame)] ?? -1);
    if (mark >= 0) look.setState({ fate: fateOfNote(fates, program, trace, mark) });
    else
      look.setState({
        fate: found.group === "controls" ? fateOfPress(fates, program, found, frame) : undefined,
      });
  };
}

/** Attaches a controller to a canvas; its callbacks read the newest props from `latest`. */
function useController(
  canvas: RefObject<HTMLCanvasElement | null>,
  latest: RefObject<ShownTape>,
  onView: (view: TapeView) => void,
  onHover: (hover: Hover) => void,
  onRow: (key: string) => void,
): RefObject<TapeController | undefined> {
  const workbench = useWorkbench();
  const evaluation = useEvaluationStore();
  const playback = usePlaybackControl();
  const { actions, look } = useTape();
  const openFate = useOpenFate();
  const controller = useRef<TapeController | undefined>(undefined);
  const hooks = useRef({ openFate, onHover, onRow });
  useEffect(() => {
    hooks.current = { openFate, onHover, onRow };
  });
  useEffect(() => {
    if (!canvas.current) return;
    const shown = () => latest.current.model;
    const chooseRow = (at: number) => {
      const chosen = shown().rows[at];
      if (chosen) hooks.current.onRow(keyOfRow(chosen));
    };
    const made = createTapeController(canvas.current, playback, {
      onHover: (frame, x, y) =>
        hooks.current.onHover({ frame, x, isUpper: y < (canvas.current?.clientHeight ?? 0) / 2 }),
      onChoose: choice => {
        if (choice.row >= 0) chooseRow(choice.row);
        hooks.current.openFate(shown(), choice.row, choice.frame, choice.note);
      },
      onScrub: playback.goTo,
      onView,
      handlesOf(at, within) {
        const { rules, isSound } = evaluation.getState();
        return rules && isSound ? listHandles(rules.kit, shown(), at, within) : [];
      },
      onPullBegin(_handle, drop) {
        latest.current.hold(latest.current.selection);
        actions.beginPull(() => {
          latest.current.hold(undefined);
          drop();
        });
      },
      onPull: actions.pullTo,
      onPullEnd(isCancelled) {
        latest.current.hold(undefined);
        actions.endPull(isCancelled);
      },
      onStrokeBegin: actions.beginStroke,
      onStroke(at, result) {
        const painted = shown().rows[at];
        if (painted) actions.applyStroke(painted, result);
      },
      onRow: chooseRow,
      onFold: group => workbench.updateKitSettings(settings => foldRows(settings, group)),
      onMoveRow(at, by) {
        const before = workbench.getState().settings;
        const { model, whole } = latest.current;
        const after = moveRow(before, whole.rows, model.rows, at, by);
        if (after === before) return false;
        const moved = [...model.rows];
        moved.splice(at + by, 0, ...moved.splice(at, 1));
        latest.current = { ...latest.current, model: { ...model, rows: moved } };
        made.setModel(latest.current.model);
        workbench.updateKitSettings(() => after);
        return true;
      },
      onStretch: (from, to) => playback.setState({ stretch: { from, to } }),
    });
    controller.current = made;
    look.setState({ drawn: made });
    return () => {
      if (look.getState().drawn === made) look.setState({ drawn: undefined });
      made.destroy();
    };
  }, [canvas, latest, onView, workbench, evaluation, playback, actions, look]);
  return controller;
}

/** Keeps the controller of a tape up to date with what it shows; never re-creates it. */
function useUpdates(
  controller: RefObject<TapeController | undefined>,
  latest: RefObject<ShownTape>,
  { model, links, changes, evaluated }: ShownTape,
  row: number,
  isLive: boolean,
): void {
  const playback = usePlaybackControl();
  const tool = useTapeLook(look => look.tool);
  const chosen = useTapeLook(look => look.fate);
  const stretch = usePlayback(state => state.stretch);
  const ghosts = useGhosts(evaluated, model);
  const takeId = evaluated?.take.id;
  useEffect(() => {
    if (!isLive) controller.current?.setModel(model);
  }, [controller, model, isLive]);
  useEffect(() => {
    // The overlay of the open take does not apply to a live session.
    controller.current?.setOverlay(isLive ? NO_OVERLAY : { links, changes, stretch, ghosts });
  }, [controller, isLive, links, changes, stretch, ghosts]);
  const revealed = useRef(chosen);
  useEffect(() => {
    if (chosen === revealed.current) return;
    revealed.current = chosen;
    if (links.length > 0) controller.current?.revealPlace(placeOfWay(links));
  }, [controller, chosen, links]);
  useEffect(() => controller.current?.setTool(tool), [controller, tool]);
  useEffect(() => controller.current?.setRow(row), [controller, row]);
  useEffect(() => {
    const { frame } = playback.getState();
    controller.current?.showStretch(0, OPENING_PX_PER_FRAME);
    // A take opens at its first content.
    controller.current?.reveal(frame > 0 ? frame : firstPress(latest.current.model));
  }, [controller, latest, playback, takeId]);
  useEffect(() => {
    controller.current?.setLive(isLive);
    if (!isLive) controller.current?.reveal(playback.getState().frame);
  }, [controller, playback, isLive]);
}

/** The cards and notes over the tape of a take at rest. */
function OverTape({
  shown: { evaluated, whole, model },
  row,
  hover,
}: {
  shown: ShownTape;
  row: number;
  hover: Hover;
}) {
  const about = useTapeLook(look => look.about);
  const isSound = useEvaluation(state => state.isSound);
  const hasTake = useDocument(state => state.takes.length > 0);
  return (
    <>
      {evaluated && <SpokenFrame evaluated={evaluated} model={model} row={row} />}
      {evaluated && hover.frame >= 0 && (
        <FrameCard
          model={model}
          evaluated={evaluated}
          frame={hover.frame}
          besideX={hover.x}
          isUpper={hover.isUpper}
        />
      )}
      {isSound && evaluated && about && <QuietNote rules={evaluated.rules} about={about} whole={whole} />}
      {!hasTake && (
        <p className="pointer-events-none absolute inset-0 grid place-items-center text-soft">
          No take yet. Record one in Play, and every frame of it appears here.
        </p>
      )}
    </>
  );
}

/** Two buttons that show fewer or more frames, for hands without a wheel or keys. */
function ZoomButtons({ controller }: { controller: RefObject<TapeController | undefined> }) {
  return (
    <div
      className="absolute top-0 right-0 flex gap-1 bg-paper p-1"
      role="group"
      aria-label="Zoom of the tape"
    >
      {(
        [
          ["−", "farther", 0.8],
          ["+", "nearer", 1.25],
        ] as const
      ).map(([word, words, factor]) => (
        <button
          key={word}
          type="button"
          title={`${words} (${word})`}
          aria-label={`${word}, ${words}`}
          className="size-7 rounded-full border border-edge bg-leaf leading-none hover:border-moss"
          onClick={() => controller.current?.zoom(factor)}
        >
          {word}
        </button>
      ))}
    </div>
  );
}

/** The drawn tape: the open take under the current rules, or the live session. */
export function Tape({
  onView,
  rowCountRef,
  wanted,
}: {
  onView: (view: TapeView) => void;
  /** Receives the number of rows shown. */
  rowCountRef: { current: number };
  wanted: string;
}) {
  const workbench = useWorkbench();
  const evaluation = useEvaluationStore();
  const playback = usePlaybackControl();
  const checking = useChecking();
  const tape = useTape();
  const isLive = usePadState(state => state.session !== undefined);
  const about = useTapeLook(look => look.about);
  const [hover, setHover] = useState<Hover>({ frame: -1, x: 0, isUpper: false });
  const [rowKey, setRowKey] = useState("");
  const [isSheetOpen, setSheetOpen] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const shown = useTapeModel(wanted, isLive);
  const { evaluated, whole, model, fate } = shown;
  const latest = useRef(shown);
  const openFate = useOpenFate();
  const row = findRow(model.rows, rowKey);
  const onHover = (next: Hover) => setHover(was => (was.frame === next.frame && was.frame < 0 ? was : next));
  const controller = useController(canvas, latest, onView, onHover, setRowKey);
  useEffect(() => {
    latest.current = shown;
    rowCountRef.current = model.rows.length;
  });
  useUpdates(controller, latest, shown, row, isLive);
  useLiveTape(controller, isLive, shown.selection.only);
  const onKeyDown = (event: KeyboardEvent) => {
    if (isLive || !controller.current || event.ctrlKey || event.metaKey) return;
    const target = {
      desk: { workbench, evaluation, playback, checking },
      tape,
      model,
      whole,
      controller: controller.current,
      row,
      chooseRow(at: number) {
        if (!model.rows[at]) return;
        setRowKey(keyOfRow(model.rows[at]));
        controller.current?.revealRow(at);
      },
      openFate: (at: number, frame: number) => openFate(model, at, frame),
      openSheet: () => setSheetOpen(true),
    };
    if (pressTapeKey(event, target)) event.preventDefault();
  };
  return (
    <div className="flex min-h-0 grow">
      <div className="relative min-w-0 grow">
        <canvas
          ref={canvas}
          tabIndex={0}
          role="application"
          aria-roledescription="tape"
          aria-label={`Tape of ${countWords(model.frames, "frame")}, row ${model.rows[row]?.name ?? "none"}. Question mark lists its keys; the table holds the same.`}
          className="absolute inset-0 h-full w-full touch-none"
          onKeyDown={onKeyDown}
          data-testid="tape"
        />
        {(isLive ? about : model.frames > 0) && wanted === "" && (
          <div className="absolute top-1.5 left-3 flex max-w-[124px] text-sm">
            <RowChoice />
          </div>
        )}
        {model.frames > 0 && <ZoomButtons controller={controller} />}
        {!isLive && <OverTape shown={shown} row={row} hover={hover} />}
        <KeySheet isOpen={isSheetOpen} onClose={() => setSheetOpen(false)} />
      </div>
      {evaluated && fate && <FateCard evaluated={evaluated} fate={fate} />}
    </div>
  );
}
