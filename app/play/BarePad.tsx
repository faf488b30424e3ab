import { gatesOfStage } from "#stage";
import { STAGE_SCREENS } from "./stageScreens";
import { Button } from "../ui/Button";
import { ControlPad } from "../parts/ControlPad";
import { PromptsNow } from "../parts/PromptsNow";
import { Meters } from "../parts/Meters";
import { GateSwitch } from "./GateSwitch";
import type { Kit } from "#core";
import { useGradual } from "../ui/useGradual";
import { useDocument, useWorkbench } from "../document/workbenchContext";

/** The kit without a stage: its controls, meters, and manual gates. */
export function BarePad() {
  const kit = useDocument(state => state.kit);
  if (!kit) return null;
  return <BareParts kit={kit} />;
}

/** The parts of that page; those of a kit with a thousand of them come one after the other. */
function BareParts({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const staged = gatesOfStage(kit);
  const gates = (kit.gates ?? []).filter(gate => !staged.has(gate.id));
  const controls = kit.controls.slice(0, useGradual(kit.controls.length));
  const switches = gates.slice(0, useGradual(gates.length));
  return (
    <>
      <div className="flex flex-wrap gap-4" role="group" aria-label="Controls">
        {controls.map(control => (
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
        <Meters kit={kit} className="gap-3" />
        {gates.length > 0 && (
          <div>
            <h2 className="mb-2 text-sm text-soft">Gates, held by hand while you play</h2>
            <div className="flex flex-wrap gap-3">
              {switches.map(gate => (
                <GateSwitch key={gate.id} gateId={gate.id} name={gate.name} />
              ))}
            </div>
          </div>
        )}
      </div>
    </>
  );
}
