import type { Take } from "#core";
import type { ExportFormat } from "../kind";
import { createSlugs, textFile, type OutFile } from "../outFile";
import { createRuns, type Runs } from "../runs";
import { writeVcd } from "./writeVcd";

/** Each take with what was made of it, as a value change dump; none where the rules have faults. */
export function makeWaveforms(takes: readonly Take[], runs: Runs | undefined): OutFile[] {
  if (!runs) return [];
  const slugFor = createSlugs("take");
  return takes.map(take => {
    const text = writeVcd(runs.rules.program, runs.traceOf(take), take);
    return textFile(`${slugFor(take.name)}.vcd`, text, "text/plain");
  });
}

/** Takes as waveforms, for the viewers and scripts that read them. */
export const waveformFormat: ExportFormat = {
  id: "vcd",
  word: "Waveforms",
  runsTakes: true,
  hint: "Each take with what was understood on every frame, as a value change dump (IEEE 1364) for any waveform viewer.",
  files: (handover, _parts, tell) => makeWaveforms(handover.takes, createRuns(handover, tell)),
};
