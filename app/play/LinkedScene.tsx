import { gateName, indexOfId, type Kit } from "#core";
import { usePadState } from "../input/context";
import { Meters } from "../parts/Meters";
import { PromptsNow } from "../parts/PromptsNow";
import { Ticker } from "../parts/Ticker";

/** A gate of the kit: a lit lamp while it is open. The game or the rules open it, never this page. */
function GateLamp({ kit, gateId }: { kit: Kit; gateId: string }) {
  const isOpen = usePadState(({ session }) => {
    const g = session ? indexOfId(session.program.gates, gateId) : -1;
    return g >= 0 && session!.state.gateOpen[g] === 1;
  });
  return (
    <li
      className={`rounded-stone border-2 px-2.5 py-0.5 text-sm ${isOpen ? "border-lichen-ink bg-lichen text-on-lichen" : "border-dashed border-soft"}`}
    >
      {gateName(kit, gateId)} <b>{isOpen ? "open" : "closed"}</b>
    </li>
  );
}

/** In place of the stage while a linked game plays: the game has the bodies, so meters and results are shown. */
export function LinkedScene({ kit }: { kit: Kit }) {
  const gates = kit.gates ?? [];
  return (
    <div
      className="grid min-h-0 grow grid-cols-[minmax(0,5fr)_minmax(0,3fr)_minmax(0,4fr)] gap-6 overflow-auto border-t border-line bg-leaf px-5 py-3"
      data-testid="linked-scene"
    >
      <Meters
        kit={kit}
        className="content-start gap-1"
        empty={<p className="text-sm text-soft">No rule of this kit grows over time.</p>}
      />
      <section aria-label="Gates">
        <h2 className="mb-2 text-sm text-soft">Gates, by the game and the rules</h2>
        <ul className="flex flex-wrap gap-2">
          {gates.map(gate => (
            <GateLamp key={gate.id} kit={kit} gateId={gate.id} />
          ))}
        </ul>
        <PromptsNow />
      </section>
      <section aria-label="Recognised now">
        <h2 className="mb-1 text-sm text-soft">Recognised, newest first</h2>
        <Ticker />
      </section>
    </div>
  );
}
