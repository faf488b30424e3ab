import { indexOfId } from "#core";
import { usePad, usePadState } from "../input/context";

/** Holds a gate open or closed manually while playing, until the stage opens it. */
export function GateSwitch({ gateId, name }: { gateId: string; name: string }) {
  const pad = usePad();
  const isOpen = usePadState(({ session }) => {
    const g = session ? indexOfId(session.program.gates, gateId) : -1;
    return (
      session !== undefined && g >= 0 && (session.state.gateOpen[g] === 1 || session.state.painted[g] === 1)
    );
  });
  const isLive = usePadState(state => state.session !== undefined);
  const turn = () => pad.turnGate(gateId);
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
