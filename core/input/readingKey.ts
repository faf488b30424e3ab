import type { Program } from "../program/program";

/** Returns a text that is equal for two programs that read every take alike, whatever their rules. */
export function readingKey({ rateHz, controls, gates }: Program): string {
  return JSON.stringify([rateHz, controls, gates.map(gate => gate.id)]);
}
