import type { PlayerParts } from "#handover";
export function bundlePlayer(): Promise<PlayerParts>;
