import type { Kit } from "#core";

const PREFIX = "try-mode:";

/** The gate that, opened by hand, brings a mode about for a try. */
export function trialGate(modeId: string): string {
  return PREFIX + modeId;
}

/**
 * A kit with a switch by hand to each of its modes, before its own switches, for trying modes while playing. The same
 * rules otherwise: everything of the kit keeps its place. A kit without modes stays as it is.
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
