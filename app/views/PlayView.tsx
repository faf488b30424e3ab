import { useMemo, useState } from "react";
import { stageOf } from "#stage";
import { usePad } from "../devices/usePad";
import { giveRunner } from "../store/giveStage";
import { gatesOfStage } from "../store/staged";
import { editKit } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import { Button } from "../ui/Button";
import { ControlPad } from "./ControlPad";
import { ControlStrip } from "./ControlStrip";
import { MeterRing } from "./MeterRing";
import { GateSwitch } from "./play/GateSwitch";
import { JumpFacts } from "./play/JumpFacts";
import type { Helps } from "./play/scenery";
import { RopesEase } from "./play/RopesEase";
import { StageBar } from "./play/StageBar";
import { StageScene } from "./play/StageScene";
import { TakeList } from "./play/TakeList";
import { Ticker } from "./Ticker";

const METERED = ["hold", "charge", "tap", "taps", "sequence", "chord", "mash"];

const HELPS: readonly (readonly [keyof Helps, string])[] = [
  ["meters", "meters"],
  ["memory", "memory"],
  ["arcs", "arcs"],
];

/** The kit without a stage under one's hands: its controls as stones, meters, and gates held by hand. */
function BarePad() {
  const kit = useWorkbench(state => state.kit);
  if (!kit) return null;
  const metered = kit.patterns.filter(pattern => !pattern.off && METERED.includes(pattern.kind));
  const staged = gatesOfStage(kit);
  const gates = (kit.gates ?? []).filter(gate => !staged.has(gate.id));
  return (
    <>
      <div className="flex flex-wrap gap-4" role="group" aria-label="Controls">
        {kit.controls.map(control => (
          <ControlPad key={control.id} control={control} />
        ))}
      </div>
      <p className="text-sm text-soft">
        This kit has no stage: gates are held by hand.{" "}
        <Button look="quiet" onClick={() => editKit("gave it a stage", giveRunner)}>
          Give it a runner on beams
        </Button>
      </p>
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        {metered.length > 0 && (
          <div className="flex flex-wrap gap-3" role="group" aria-label="Meters">
            {metered.map(pattern => (
              <MeterRing key={pattern.id} patternId={pattern.id} name={pattern.name} />
            ))}
          </div>
        )}
        {gates.length > 0 && (
          <div>
            <h2 className="mb-2 text-sm text-soft">Gates, held by hand while you play</h2>
            <div className="flex flex-wrap gap-3">
              {gates.map(gate => (
                <GateSwitch key={gate.id} gateId={gate.id} name={gate.name} />
              ))}
            </div>
          </div>
        )}
      </div>
    </>
  );
}

/** Play: the kit under one's hands, on its stage where it has one, with what a player would see; recorded from the first frame. */
export function PlayView() {
  const kit = useWorkbench(state => state.kit);
  const isAwake = usePad(state => state.session !== undefined);
  const repeats = usePad(state => state.repeatsDropped);
  const [helps, setHelps] = useState<Helps>({ meters: true, memory: true, arcs: true });
  const document = useMemo(() => (kit ? stageOf(kit) : undefined), [kit]);
  if (!kit) return null;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_330px]">
      <section aria-label="Pad" className="flex min-h-0 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 py-2">
          <StageBar />
          {!isAwake && <p className="text-sm text-soft">Press Record, then play with your keys.</p>}
          {isAwake && repeats > 0 && <p className="text-sm text-soft">{repeats} repeats dropped</p>}
          {document && (
            <span className="ml-auto flex items-center text-sm" role="group" aria-label="Shown on the stage">
              {HELPS.filter(([key]) => document.kind === "runner" || key === "meters").map(([key, word]) => (
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
        {document ? (
          <>
            <div className="min-h-0 grow border-t border-line">
              <StageScene helps={helps} label={`The stage of ${kit.name}`} />
            </div>
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
          <JumpFacts kit={kit} />
          <RopesEase kit={kit} />
          <section aria-label="Takes">
            <h2 className="mb-1 text-sm font-semibold">Takes</h2>
            <TakeList />
          </section>
        </div>
        <section
          aria-label="Understood"
          className="h-36 shrink-0 overflow-auto border-t border-line px-5 py-2"
        >
          <h2 className="text-sm font-semibold">Understood</h2>
          <Ticker />
        </section>
      </div>
    </div>
  );
}
