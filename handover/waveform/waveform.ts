import { readTake } from "#core";
import { compileRules, runRules } from "#stage";
import type { ExportFormat } from "../kind";
import { createSlugs, textFile } from "../outFile";
import { writeVcd } from "./writeVcd";

/** Takes as waveforms, for the viewers and scripts that read them. */
export const waveformFormat: ExportFormat = {
  id: "vcd",
  word: "Waveforms",
  runsTakes: true,
  hint: "Each take with what was understood on every frame, as a value change dump (IEEE 1364) for any waveform viewer.",
  files({ kit, takes }) {
    const rules = compileRules(kit);
    if (!rules.ok) return [];
    const { program } = rules.value;
    const slugFor = createSlugs("take");
    return takes.map(take => {
      const own = slugFor(take.name);
      const { trace } = runRules(rules.value, readTake(program, take));
      return textFile(`${own}.vcd`, writeVcd(program, trace, take), "text/plain");
    });
  },
};
