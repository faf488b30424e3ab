import type { Kit } from "#core";

const PREFIX = "try-mode:";

/** Returns the gate that switches to a mode when opened manually. */
export function trialGate(modeId: string): string {
  return PREFIX + modeId;
}

/**
 * Returns a kit with a manual switch to each of its modes, before its own switches, for trying modes while
 * playing. The other rules and their indices are unchanged. A kit without modes is returned as is.
 */
export function withTrialSwitches(kit: Kit): Kit {
  if (!kit.modes || kit.modes.length === 0) return kit;
  return {
    ...kit,
    gates: [...(kit.gates ?? []), ...kit.modes.map(mode => ({ id: trialGate(mode.id), name: mode.name }))],
    switches: [
      ...kit.modes.map(mode => ({
        when: { gate: trialGate(mode.id), turns: "open" as const },
        to: mode.id,
      })),
      ...(kit.switches ?? []),
    ],
  };
}
