import { STAGE_PAINTERS } from "../scene/stagePainters";
import { useState } from "react";
import { deleteAt, formatIssue, type Kit } from "#core";
import { stageOf } from "#stage";
import { BEAM, type Tile } from "../edits/levelEdits";
import { Button } from "../ui/Button";
import { ControlStrip } from "../parts/ControlStrip";
import { BarePad } from "./BarePad";
import type { Helps } from "../scene/scenery";
import { LevelBar } from "./runner/LevelBar";
import { StageBar } from "./StageBar";
import { StageScene } from "./StageScene";
import { STAGE_SCREENS } from "./stageScreens";
import { TakeList } from "./TakeList";
import { ModeNow } from "../parts/ModeNow";
import { PromptsNow } from "../parts/PromptsNow";
import { Ticker } from "../parts/Ticker";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";
import { usePadState } from "../input/context";

const HELPS: readonly (readonly [keyof Helps, string])[] = [
  ["meters", "meters"],
  ["memory", "memory"],
  ["arcs", "arcs"],
];

/** The switches of what the stage shows besides its bodies. */
function HelpSwitches({
  known,
  helps,
  onChange,
}: {
  /** Those that the stage has. */
  known: readonly (keyof Helps)[];
  helps: Helps;
  onChange: (helps: Helps) => void;
}) {
  return (
    <span className="ml-auto flex items-center text-sm" role="group" aria-label="Shown on the stage">
      {HELPS.filter(([key]) => known.includes(key)).map(([key, word]) => (
        <Button
          key={key}
          look="quiet"
          aria-pressed={helps[key]}
          className={helps[key] ? "" : "line-through"}
          onClick={event => {
            event.currentTarget.blur();
            onChange({ ...helps, [key]: !helps[key] });
          }}
        >
          {word}
        </Button>
      ))}
    </span>
  );
}

/** The bar above the stage while it is played: its actions, the mode, a hint for the first recording. */
function PlayBar({ kit, onDraw }: { kit: Kit; onDraw: () => void }) {
  const isAwake = usePadState(state => state.session !== undefined);
  // The takes that came with a kit do not count as recorded here.
  const hasRecorded = useDocument(({ takes }) =>
    takes.some(({ name }) => !/^(A clean sheet|Played by a scripted hand|Written hands)/.test(name)),
  );
  return (
    <>
      <StageBar onDraw={onDraw} />
      <ModeNow kit={kit} />
      {!isAwake && !hasRecorded && (
        <p className="text-sm text-soft">Press Record, then play with your keys.</p>
      )}
    </>
  );
}

/** The stage with its prompts and its controls; without a stage, the controls alone. */
function StagePart({
  kit,
  helps,
  brush,
  onDone,
}: {
  kit: Kit;
  helps: Helps;
  /** The tile being drawn; undefined while the stage is played. */
  brush: Tile | undefined;
  onDone: () => void;
}) {
  const stage = stageOf(kit);
  if (!stage)
    return (
      <div className="flex min-h-0 grow flex-col gap-6 overflow-auto px-7 py-4">
        <BarePad />
      </div>
    );
  return (
    <>
      <div className="min-h-0 grow border-t border-line">
        <StageScene helps={helps} label={`The stage of ${kit.name}`} brush={brush} onDone={onDone} />
      </div>
      {!STAGE_PAINTERS[stage.kind].paintsPrompts && (
        <div className="px-5 empty:hidden">
          <PromptsNow />
        </div>
      )}
      <ControlStrip label="Controls" controls={kit.controls} />
    </>
  );
}

/** The column beside the stage: its numbers, the takes, and the recognised events. */
function PlaySide({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const stage = stageOf(kit);
  const screen = stage && STAGE_SCREENS[stage.kind];
  const takeStageAway = () =>
    takeAway(
      "The stage is taken away. Its gates stay, and are held by hand.",
      workbench.editKit("took the stage away", now => deleteAt(now, ["stage"])),
    );
  return (
    <div className="flex min-h-0 flex-col border-l border-line">
      <div className="flex min-h-0 grow flex-col gap-4 overflow-auto px-5 py-3">
        {screen && <screen.Numbers kit={kit} />}
        <section aria-label="Takes">
          <h2 className="mb-1 text-sm font-semibold">Takes</h2>
          <TakeList />
        </section>
        {screen?.More && <screen.More kit={kit} />}
        {stage && (
          <p>
            <Button look="quiet" className="-ml-2" onClick={takeStageAway}>
              Take the stage away
            </Button>
          </p>
        )}
      </div>
      <section aria-label="Understood" className="h-36 shrink-0 overflow-auto border-t border-line px-5 py-2">
        <h2 className="text-sm font-semibold">Understood</h2>
        <Ticker includesReplay />
      </section>
    </div>
  );
}

/** Play: the kit on its stage if it has one, as a player would see it; recorded from the first frame. */
export function PlayView() {
  const kit = useDocument(state => state.kit);
  const isAwake = usePadState(state => state.session !== undefined);
  const faults = useEvaluation(state => state.faults);
  const [helps, setHelps] = useState<Helps>({ meters: true, memory: true, arcs: true });
  const [brush, setBrush] = useState<Tile | undefined>();
  if (!kit) return null;
  const stage = stageOf(kit);
  const drawn = !isAwake && brush !== undefined && stage?.kind === "runner" ? { stage, brush } : undefined;
  const stopDrawing = () => setBrush(undefined);
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_330px] max-lg:grid-cols-[minmax(0,1fr)_270px]">
      <section aria-label="Pad" className="flex min-h-0 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 py-2">
          {drawn ? (
            <LevelBar kit={kit} {...drawn} onBrush={setBrush} onDone={stopDrawing} />
          ) : (
            <PlayBar kit={kit} onDraw={() => setBrush(BEAM)} />
          )}
          {stage && !drawn && (
            <HelpSwitches known={STAGE_SCREENS[stage.kind].helps} helps={helps} onChange={setHelps} />
          )}
        </div>
        {faults[0] && (
          <p role="alert" className="px-5 pb-2 text-sm text-foxglove">
            Nothing can be played until this is mended: {formatIssue(faults[0])}
          </p>
        )}
        <StagePart kit={kit} helps={helps} brush={drawn?.brush} onDone={stopDrawing} />
      </section>
      <PlaySide kit={kit} />
    </div>
  );
}
