import { STAGE_PAINTERS } from "../scene/stagePainters";
import { useEffect, useState } from "react";
import { deleteAt, formatIssue, type Kit } from "#core";
import { stageOf } from "#stage";
import { BEAM, type Tile } from "../edits/levelEdits";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { Fold } from "../ui/Fold";
import { ControlStrip } from "../parts/ControlStrip";
import { BarePad } from "./BarePad";
import type { Closeness, Help, Helps } from "../scene/scenery";
import { FirstStep } from "./FirstStep";
import { LinkBar } from "./LinkBar";
import { LinkedScene } from "./LinkedScene";
import { LevelBar } from "./runner/LevelBar";
import { StageBar } from "./StageBar";
import { StageScene } from "./StageScene";
import { UnstagedNote } from "./UnstagedNote";
import { STAGE_SCREENS } from "./stageScreens";
import { TakeList } from "./TakeList";
import { ModeNow } from "../parts/ModeNow";
import { PromptsNow } from "../parts/PromptsNow";
import { Ticker } from "../parts/Ticker";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";
import { benchKeyOf } from "../input/benchKeys";
import { usePad, usePadState } from "../input/context";

const HELPS: readonly (readonly [Help, string])[] = [
  ["meters", "meters"],
  ["memory", "buffered"],
  ["arcs", "arcs"],
];

const CLOSENESS = [
  { value: "fit", label: "the whole level", hint: "all of it, however small" },
  { value: "near", label: "near", hint: "its height fits, and the body is followed" },
  { value: "nearer", label: "nearer", hint: "half as close again" },
] as const;

const WIDE_KEY = benchKeyOf("wide");

/** The switches of what the stage shows besides its bodies. */
function HelpSwitches({
  known,
  helps,
  onChange,
}: {
  /** Those that the stage has. */
  known: readonly Help[];
  helps: Helps;
  onChange: (helps: Helps) => void;
}) {
  return (
    <span className="flex shrink-0 items-center pr-3 text-sm" role="group" aria-label="Shown on the stage">
      {known.includes("arcs") && (
        <span className="mr-1">
          <ChoiceWord
            label="Closeness of the stage"
            value={helps.closeness}
            choices={CLOSENESS}
            onChoose={value => onChange({ ...helps, closeness: value as Closeness })}
          />
        </span>
      )}
      {HELPS.filter(([key]) => known.includes(key)).map(([key, word]) => (
        <Button
          key={key}
          look="quiet"
          aria-pressed={helps[key]}
          onClick={event => {
            event.currentTarget.blur();
            onChange({ ...helps, [key]: !helps[key] });
          }}
        >
          <span
            aria-hidden
            className={`mr-1 inline-block size-2.5 rounded-full border border-moss ${helps[key] ? "bg-moss" : ""}`}
          />
          {word}
        </Button>
      ))}
    </span>
  );
}

/** Lets the stage fill the window, and back. */
function WideButton() {
  const pad = usePad();
  const isWide = usePadState(state => state.isWide);
  return (
    <Button
      look="quiet"
      aria-keyshortcuts={WIDE_KEY}
      onClick={event => {
        event.currentTarget.blur();
        pad.toggleWide();
      }}
    >
      {isWide ? "Show everything" : "Fill the window"}{" "}
      <kbd className="font-mono text-[11px] text-soft">{WIDE_KEY}</kbd>
    </Button>
  );
}

/** The bar above the stage while it is played: its actions and the mode. */
function PlayBar({ kit, onDraw }: { kit: Kit; onDraw: () => void }) {
  return (
    <>
      <StageBar onDraw={onDraw} />
      <ModeNow kit={kit} />
    </>
  );
}

/** The stage with its prompts and its controls; without a stage, the controls alone. */
function StagePart({
  kit,
  helps,
  onHelps,
  brush,
  onDone,
}: {
  kit: Kit;
  helps: Helps;
  onHelps: (helps: Helps) => void;
  /** The tile being drawn; undefined while the stage is played. */
  brush: Tile | undefined;
  onDone: () => void;
}) {
  const stage = stageOf(kit);
  const isLinked = usePadState(state => state.isLinked);
  if (isLinked)
    return (
      <>
        <LinkedScene kit={kit} />
        <div className="border-t border-line">
          <ControlStrip label="Controls" controls={kit.controls} />
        </div>
      </>
    );
  if (!stage)
    return (
      <div className="flex min-h-0 grow flex-col gap-6 overflow-auto px-7 py-4">
        <BarePad />
      </div>
    );
  return (
    <>
      <div className="relative min-h-0 grow border-t border-line narrow:h-[max(11rem,45dvh)] narrow:grow-0">
        <StageScene helps={helps} label={`The stage of ${kit.name}`} brush={brush} onDone={onDone} />
        {!brush && <UnstagedNote />}
      </div>
      {!STAGE_PAINTERS[stage.kind].paintsPrompts && (
        <div className="px-5 empty:hidden">
          <PromptsNow />
        </div>
      )}
      <div className="flex shrink-0 items-center border-t border-line max-xl:flex-col max-xl:items-stretch">
        <div className="min-w-0 grow">
          <ControlStrip label="Controls" controls={kit.controls} />
        </div>
        <div className="flex items-center justify-end">
          <WideButton />
          {!brush && (
            <HelpSwitches known={STAGE_SCREENS[stage.kind].helps} helps={helps} onChange={onHelps} />
          )}
        </div>
      </div>
    </>
  );
}

/** The column beside the stage: its numbers, the takes, and the recognised events. */
function PlaySide({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const isLinked = usePadState(state => state.isLinked);
  const stage = stageOf(kit);
  const screen = stage && STAGE_SCREENS[stage.kind];
  const takeStageAway = () =>
    takeAway(
      "The stage is removed. Its gates stay, and are held by hand.",
      workbench.editKit("took the stage away", now => deleteAt(now, ["stage"])),
    );
  return (
    <div className="flex min-h-0 flex-col border-l border-line narrow:border-t narrow:border-l-0">
      <div className="flex min-h-0 grow flex-col gap-2 overflow-auto px-5 py-2">
        {!isLinked && <FirstStep />}
        {screen && (
          <Fold name="Numbers">
            <div className="flex flex-col gap-4">
              <screen.Numbers kit={kit} />
              {screen.More && <screen.More kit={kit} />}
            </div>
          </Fold>
        )}
        {!isLinked && (
          <Fold name="Recognised">
            <Ticker includesReplay />
          </Fold>
        )}
        <Fold name="Takes" isLast>
          <TakeList />
        </Fold>
        {stage && (
          <p>
            <Button look="quiet" className="-ml-2" onClick={takeStageAway}>
              Remove the stage
            </Button>
          </p>
        )}
      </div>
    </div>
  );
}

/** Returns whether the stage fills the window, which a key toggles; while keys belong to the kit, the pad hears it. */
function useWideKey(): boolean {
  const pad = usePad();
  const isWide = usePadState(state => state.isWide);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { session, isLinked, isWide: isNow } = pad.getState();
      const isOurs = event.code === WIDE_KEY || (event.code === "Escape" && isNow);
      if (!isOurs || event.defaultPrevented || event.ctrlKey || event.metaKey) return;
      if (session && !isLinked) return;
      event.preventDefault();
      pad.toggleWide();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [pad]);
  return isWide;
}

/** Play: the kit on its stage if it has one, as a player would see it; recorded from the first frame. */
export function PlayView() {
  const kit = useDocument(state => state.kit);
  const isAwake = usePadState(state => state.session !== undefined);
  const faults = useEvaluation(state => state.faults);
  const [helps, setHelps] = useState<Helps>({ meters: true, memory: true, arcs: true, closeness: "near" });
  const [brush, setBrush] = useState<Tile | undefined>();
  const isWide = useWideKey();
  if (!kit) return null;
  const stage = stageOf(kit);
  const drawn = !isAwake && brush !== undefined && stage?.kind === "runner" ? { stage, brush } : undefined;
  const stopDrawing = () => setBrush(undefined);
  return (
    <div
      className={`grid min-h-0 grow ${isWide ? "grid-cols-1" : "grid-cols-[minmax(0,1fr)_310px] max-lg:grid-cols-[minmax(0,1fr)_270px] narrow:block narrow:overflow-auto"}`}
    >
      <section aria-label="Pad" className="flex min-h-0 flex-col">
        <h1 className="sr-only">Play {kit.name}</h1>
        <div className="flex flex-wrap items-center gap-3 px-5 py-2 narrow:gap-1 narrow:px-3 narrow:py-1">
          {drawn ? (
            <LevelBar kit={kit} {...drawn} onBrush={setBrush} onDone={stopDrawing} />
          ) : (
            <PlayBar kit={kit} onDraw={() => setBrush(BEAM)} />
          )}
        </div>
        <LinkBar />
        {faults[0] && (
          <p role="alert" className="px-5 pb-2 text-sm text-foxglove">
            Nothing can be played until this is mended: {formatIssue(faults[0])}
          </p>
        )}
        <StagePart kit={kit} helps={helps} onHelps={setHelps} brush={drawn?.brush} onDone={stopDrawing} />
      </section>
      {!isWide && <PlaySide kit={kit} />}
    </div>
  );
}
