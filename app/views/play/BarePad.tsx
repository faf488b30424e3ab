import { giveDuel, giveRopes, giveRunner } from "../../edits/giveStage";
import { gatesOfStage } from "../../judging/staged";
import { editKit } from "../../document/workbench";
import { useWorkbench } from "../../document/useWorkbench";
import { Button } from "../../ui/Button";
import { ControlPad } from "../ControlPad";
import { MeterRing } from "../MeterRing";
import { GateSwitch } from "./GateSwitch";

const METERED = ["hold", "charge", "tap", "taps", "sequence", "chord", "mash"];

const STAGES = [
  { words: "a runner on beams", give: giveRunner },
  { words: "a duel with a clockwork", give: giveDuel },
  { words: "ropes for its prompts", give: giveRopes },
] as const;

/** The kit without a stage under one's hands: its controls as stones, meters, and gates held by hand. */
export function BarePad() {
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
        This kit has no stage: gates are held by hand. Give it one:
        {STAGES.map(({ words, give }) => (
          <Button key={words} look="quiet" onClick={() => editKit("gave it a stage", give)}>
            {words}
          </Button>
        ))}
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
