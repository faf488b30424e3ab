import { pad } from "../../input/pad";
import { usePad } from "../../input/usePad";

/** A gate held open or closed by hand while playing, until the stage opens it by itself. */
export function GateSwitch({ gateId, name }: { gateId: string; name: string }) {
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
