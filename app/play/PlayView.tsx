import { STAGE_PAINTERS } from "../scene/stagePainters";
import { useState } from "react";
import { deleteAt, formatIssue } from "#core";
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
import { useDesk, useDocument, useEvaluation } from "../document/context";
import { useTakeAway } from "../document/useTakeAway";
import { usePadState } from "../input/context";

const HELPS: readonly (readonly [keyof Helps, string])[] = [
  ["meters", "meters"],
  ["memory", "memory"],
  ["arcs", "arcs"],
];

/** Play: the kit on its stage if it has one, as a player would see it; recorded from the first frame. */
export function PlayView() {
  const kit = useDocument(state => state.kit);
  const isAwake = usePadState(state => state.session !== undefined);
  const repeats = usePadState(state => state.repeatsDropped);
  const [helps, setHelps] = useState<Helps>({ meters: true, memory: true, arcs: true });
  const faults = useEvaluation(state => state.faults);
  const { workbench } = useDesk();
  // The takes that came with a kit do not count as recorded here.
  const hasRecorded = useDocument(({ takes }) =>
    takes.some(({ name }) => !/^(A clean sheet|Played by a scripted hand|Written hands)/.test(name)),
  );
  const takeAway = useTakeAway();
  const [brush, setBrush] = useState<Tile | undefined>();
  const document = kit && stageOf(kit);
  const screen = document && STAGE_SCREENS[document.kind];
  if (!kit) return null;
  const takeStageAway = () =>
    takeAway(
      "The stage is taken away. Its gates stay, and are held by hand.",
      workbench.editKit("took the stage away", now => deleteAt(now, ["stage"])),
    );
  const drawing = !isAwake && brush !== undefined && document?.kind === "runner" ? document : undefined;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_330px] max-lg:grid-cols-[minmax(0,1fr)_270px]">
      <section aria-label="Pad" className="flex min-h-0 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 py-2">
          {drawing ? (
            <LevelBar
              kit={kit}
              stage={drawing}
              brush={brush ?? BEAM}
              onBrush={setBrush}
              onDone={() => setBrush(undefined)}
            />
          ) : (
            <StageBar onDraw={() => setBrush(BEAM)} />
          )}
          {!drawing && <ModeNow kit={kit} />}
          {!drawing && !isAwake && !hasRecorded && (
            <p className="text-sm text-soft">Press Record, then play with your keys.</p>
          )}
          {isAwake && repeats > 0 && <p className="text-sm text-soft">{repeats} repeats dropped</p>}
          {document && !drawing && (
            <span className="ml-auto flex items-center text-sm" role="group" aria-label="Shown on the stage">
              {HELPS.filter(([key]) => screen?.helps.includes(key)).map(([key, word]) => (
                <Button
                  key={key}
                  look="quiet"
                  aria-pressed={helps[key]}
                  className={helps[key] ? "" : "line-through"}
                  onClick={event => {
                    event.currentTarget.blur();
                    setHelps({ ...helps, [key]: !helps[key] });
                  }}
                >
                  {word}
                </Button>
              ))}
            </span>
          )}
        </div>
        {faults[0] && (
          <p role="alert" className="px-5 pb-2 text-sm text-foxglove">
            Nothing can be played until this is mended: {formatIssue(faults[0])}
          </p>
        )}
        {document ? (
          <>
            <div className="min-h-0 grow border-t border-line">
              <StageScene
                helps={helps}
                label={`The stage of ${kit.name}`}
                brush={drawing && brush}
                onDone={() => setBrush(undefined)}
              />
            </div>
            {!STAGE_PAINTERS[document.kind].paintsPrompts && (
              <div className="px-5 empty:hidden">
                <PromptsNow />
              </div>
            )}
            <ControlStrip label="Controls" controls={kit.controls} />
          </>
        ) : (
          <div className="flex min-h-0 grow flex-col gap-6 overflow-auto px-7 py-4">
            <BarePad />
          </div>
        )}
      </section>
      <div className="flex min-h-0 flex-col border-l border-line">
        <div className="flex min-h-0 grow flex-col gap-4 overflow-auto px-5 py-3">
          {screen && <screen.Numbers kit={kit} />}
          <section aria-label="Takes">
            <h2 className="mb-1 text-sm font-semibold">Takes</h2>
            <TakeList />
          </section>
          {screen?.More && <screen.More kit={kit} />}
          {document && (
            <p>
              <Button look="quiet" className="-ml-2" onClick={takeStageAway}>
                Take the stage away
              </Button>
            </p>
          )}
        </div>
        <section
          aria-label="Understood"
          className="h-36 shrink-0 overflow-auto border-t border-line px-5 py-2"
        >
          <h2 className="text-sm font-semibold">Understood</h2>
          <Ticker includesReplay />
        </section>
      </div>
    </div>
  );
}
