import { nanoid } from "nanoid";
import { pad, sleepPad, wakePad } from "../devices/pad";
import { usePad } from "../devices/usePad";
import { useCompiled, useWorkbench } from "../store/useWorkbench";
import { convertTake, copyTake } from "../store/takeEdits";
import { addTake, editTake, openTake, removeTake, renameTake, undo } from "../store/workbench";
import { say } from "../shell/notices";
import { Button } from "../ui/Button";
import { ControlPad } from "./ControlPad";
import { MeterRing } from "./MeterRing";
import { Ticker } from "./Ticker";

/** A gate held open or closed by hand while playing, until the stage opens it by itself. */
function GateSwitch({ gateId, name }: { gateId: string; name: string }) {
  const isOpen = usePad(({ session }) => {
    const g = session?.program.gates.findIndex(gate => gate.id === gateId) ?? -1;
    return (
      session !== undefined && g >= 0 && (session.state.gateOpen[g] === 1 || session.state.painted[g] === 1)
    );
  });
  const isLive = usePad(state => state.session !== undefined);
  const turn = () => {
    const { session } = pad.getState();
    const g = session?.program.gates.findIndex(gate => gate.id === gateId) ?? -1;
    if (session && g >= 0) session.setGate(g, session.state.painted[g] === 0);
  };
  return (
    <button
      type="button"
      disabled={!isLive}
      aria-pressed={isOpen}
      onClick={turn}
      onFocus={event => isLive && event.currentTarget.blur()}
      className={`rounded-stone border-2 px-4 py-2 text-sm disabled:opacity-60 ${isOpen ? "border-lichen-ink bg-lichen text-on-lichen" : "border-dashed border-soft"}`}
    >
      {name} <b>{isOpen ? "open" : "closed"}</b>
    </button>
  );
}

function RecordButton() {
  const isRecording = usePad(state => state.isRecording);
  const isAwake = usePad(state => state.session !== undefined);
  const { program } = useCompiled();
  return (
    <Button look="strong" disabled={!program} onClick={() => (isRecording ? sleepPad() : wakePad(true))}>
      {isRecording ? "Stop and keep" : isAwake ? "Record from here" : "Record a take"}
    </Button>
  );
}

function TakeList() {
  const takes = useWorkbench(state => state.takes);
  const openId = useWorkbench(state => state.openTakeId);
  const rate = useWorkbench(state => state.kit?.rate ?? 60);
  if (takes.length === 0)
    return (
      <p className="text-sm text-soft">
        No takes yet. Record one: it is judged anew at every change of a rule.
      </p>
    );
  return (
    <ul className="text-sm">
      {takes.map(take => (
        <li
          key={take.id}
          className={`flex flex-wrap items-center gap-x-1 border-b border-dotted border-line py-1 ${take.id === openId ? "font-semibold" : ""}`}
        >
          <input
            aria-label={`Name of ${take.name}`}
            className="min-w-0 basis-full truncate rounded bg-transparent px-2 py-0.5 focus:bg-leaf"
            defaultValue={take.name}
            key={take.name}
            onBlur={event =>
              event.target.value.trim() &&
              event.target.value !== take.name &&
              renameTake(take.id, event.target.value.trim())
            }
            onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
          />
          <span className="shrink-0 grow px-2 font-mono font-normal whitespace-nowrap text-soft">
            {(take.frames / take.rate).toFixed(1)} s
          </span>
          {take.rate !== rate && (
            <Button
              look="quiet"
              className="text-foxglove"
              onClick={() => editTake(`converted ${take.name}`, take.id, was => convertTake(was, rate))}
            >
              {take.rate} Hz: bring to {rate}
            </Button>
          )}
          <Button
            look="quiet"
            onClick={() => openTake(take.id)}
            disabled={take.id === openId}
            aria-label={`Open ${take.name}`}
          >
            Open
          </Button>
          <Button
            look="quiet"
            aria-label={`Copy ${take.name}`}
            onClick={() => addTake(copyTake(take, nanoid(8), `${take.name}, copy`), `copied ${take.name}`)}
          >
            Copy
          </Button>
          <Button
            look="quiet"
            aria-label={`Delete ${take.name}`}
            onClick={() => {
              removeTake(take.id);
              say({
                tone: "plain",
                title: `${take.name} is deleted.`,
                details: [],
                action: { label: "Put it back", run: undo },
              });
            }}
          >
            Delete
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Play: the kit under one's hands, with the meters a player would see, recorded from the first frame. */
export function PlayView() {
  const kit = useWorkbench(state => state.kit);
  const isAwake = usePad(state => state.session !== undefined);
  const repeats = usePad(state => state.repeatsDropped);
  if (!kit) return null;
  const metered = kit.patterns.filter(
    pattern =>
      !pattern.off && ["hold", "charge", "tap", "taps", "sequence", "chord", "mash"].includes(pattern.kind),
  );
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_270px_330px]">
      <section aria-label="Pad" className="flex flex-col gap-6 overflow-auto px-7 py-5">
        <div className="flex items-center gap-4">
          <RecordButton />
          <p className="text-sm text-soft">
            {isAwake
              ? "Keys belong to the kit. Esc gives them back."
              : "Press Record, then play with your keys or the stones below."}
            {isAwake && repeats > 0 && <span className="block">{repeats} repeats by the system dropped</span>}
          </p>
        </div>
        <div className="flex flex-wrap gap-4" role="group" aria-label="Controls">
          {kit.controls.map(control => (
            <ControlPad key={control.id} control={control} />
          ))}
        </div>
        <div className="flex flex-wrap gap-x-8 gap-y-4">
          {metered.length > 0 && (
            <div className="flex flex-wrap gap-3" role="group" aria-label="Meters">
              {metered.map(pattern => (
                <MeterRing key={pattern.id} patternId={pattern.id} name={pattern.name} />
              ))}
            </div>
          )}
          {(kit.gates ?? []).length > 0 && (
            <div>
              <h2 className="mb-2 text-sm text-soft">Gates, held by hand while you play</h2>
              <div className="flex flex-wrap gap-3">
                {kit.gates?.map(gate => (
                  <GateSwitch key={gate.id} gateId={gate.id} name={gate.name} />
                ))}
              </div>
            </div>
          )}
        </div>
      </section>
      <section aria-label="Understood" className="overflow-auto border-l border-line px-5 py-4">
        <h2 className="mb-2 text-sm font-semibold">Understood</h2>
        <Ticker />
      </section>
      <section aria-label="Takes" className="overflow-auto border-l border-line px-5 py-4">
        <h2 className="mb-2 text-sm font-semibold">Takes</h2>
        <TakeList />
      </section>
    </div>
  );
}
