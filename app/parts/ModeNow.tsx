import type { Kit } from "#core";
import { usePadState } from "../input/context";

/** The current mode while playing; nothing if the kit has none. */
export function ModeNow({ kit }: { kit: Kit }) {
  const mode = usePadState(({ session }) => (session ? session.state.mode : -1));
  const id = usePadState(({ session }) =>
    session ? session.program.modes[session.state.mode]?.id : undefined,
  );
  if (mode < 0 || !kit.modes || kit.modes.length === 0) return null;
  const name = kit.modes.find(item => item.id === id)?.name ?? id;
  return (
    <p className="text-sm whitespace-nowrap text-soft" data-testid="mode-now">
      in <b className="text-ink">{name}</b>
    </p>
  );
}
