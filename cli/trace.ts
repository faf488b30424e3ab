import { Command } from "commander";
import { formatPhasedTrace, formatTrace, parseTake, readTake } from "#core";
import { parseRules, runRules } from "#stage";
import { readDocument } from "./readDocument";

/**
 * Writes the trace of a take, on the kit's stage if any, to standard output; or one line per fault to
 * standard error, with exit code 2.
 */
function main(kitFile: string, takeFile: string, { phases }: { phases?: boolean }): void {
  const kit = readDocument(kitFile, parseRules);
  const take = readDocument(takeFile, parseTake);
  const lines = [kit, take].flatMap(read => ("lines" in read ? read.lines : []));
  if ("lines" in kit || "lines" in take) {
    process.stderr.write(lines.join("\n") + "\n");
    process.exitCode = 2;
    return;
  }
  const { program } = kit.value;
  const { trace } = runRules(kit.value, readTake(program, take.value));
  const format = phases ? formatPhasedTrace : formatTrace;
  process.stdout.write(`${JSON.stringify(format(program, trace))}\n`);
}

export const traceCommand = () =>
  new Command("trace")
    .description("What the core makes of a take: KIT.json and TAKE.json in, the trace out")
    .argument("<kit>", "a kit file")
    .argument("<take>", "a take file")
    .option("--phases", "also the phases of moves: startup, active, recovery, over and cut")
    .action(main);
