import { gatesOfStage } from "#stage";
import { STAGE_SCREENS } from "./stageScreens";
import { Button } from "../ui/Button";
import { ControlPad } from "../parts/ControlPad";
import { PromptsNow } from "../parts/PromptsNow";
import { MeterRing } from "../parts/MeterRing";
import { GateSwitch } from "./GateSwitch";
import { traitsOf } from "#core";
import { useDocument, useWorkbench } from "../document/workbenchContext";

/** The kit without a stage: its controls, meters, and manual gates. */
export function BarePad() {
  const workbench = useWorkbench();
  const kit = useDocument(state => state.kit);
  if (!kit) return null;
  const metered = kit.patterns.filter(pattern => !pattern.off && traitsOf(pattern.kind).meter !== "none");
  const staged = gatesOfStage(kit);
  const gates = (kit.gates ?? []).filter(gate => !staged.has(gate.id));
  return (
    <>
      <div className="flex flex-wrap gap-4" role="group" aria-label="Controls">
        {kit.controls.map(control => (
          <ControlPad key={control.id} control={control} />
        ))}
      </div>
      <PromptsNow />
      <p className="text-sm text-soft">
        This kit has no stage: you open and close its gates yourself. Give it one:
        {Object.values(STAGE_SCREENS).map(({ words, give }) => (
          <Button key={words} look="quiet" onClick={() => workbench.editKit("gave it a stage", give)}>
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
