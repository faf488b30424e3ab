import type { Take } from "#core";
import type { ExportFormat } from "../kind";
import { createSlugs, textFile, type OutFile } from "../outFile";
import { createRuns, type Runs } from "../runs";
import { writeVcd } from "./writeVcd";

/** Returns each take with its trace as a value change dump; none if the rules have faults. */
export function makeWaveforms(takes: readonly Take[], runs: Runs | undefined): OutFile[] {
  if (!runs) return [];
  const slugFor = createSlugs("take");
  return takes.map(take => {
    const text = writeVcd(runs.rules.program, runs.traceOf(take), take);
    return textFile(`${slugFor(take.name)}.vcd`, text, "text/plain");
  });
}

/** Exports takes as waveforms, for viewers and scripts. */
export const waveformFormat: ExportFormat = {
  id: "vcd",
  word: "Waveforms",
  hint: "Each take with the recognised inputs of every frame, as a value change dump (IEEE 1364) for any waveform viewer.",
  uses: ["runs"],
  commands: [{ as: "vcd" }],
  packed: {
    folder: "waveforms",
    line: "each take with what was made of it, as a value change dump",
    files: ({ takes }, _parts, runs) => makeWaveforms(takes, runs),
  },
  files: (handover, _parts, onProgress) => makeWaveforms(handover.takes, createRuns(handover, onProgress)),
};
