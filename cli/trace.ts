import { Command } from "commander";
import { compile, formatIssue, formatTrace, parseKit, parseTake, readTake } from "#core";
import { checkStage, compileStage, prepareKit, runStaged } from "#stage";
import { readDocument } from "./readDocument";

/** Writes the trace of a take, on the kit's stage where it has one, to standard output, or one line a fault to standard error and exit code 2. */
function main(kitFile: string, takeFile: string): void {
  const kit = readDocument(kitFile, parseKit);
  const take = readDocument(takeFile, parseTake);
  const lines = [kit, take].flatMap(read => ("lines" in read ? read.lines : []));
  if ("lines" in kit || "lines" in take) {
    process.stderr.write(lines.join("\n") + "\n");
    process.exitCode = 2;
    return;
  }
  const faults = checkStage(kit.value);
  if (faults.length > 0) {
    process.stderr.write(faults.map(issue => `${kitFile}: ${formatIssue(issue)}`).join("\n") + "\n");
    process.exitCode = 2;
    return;
  }
  const program = compile(prepareKit(kit.value));
  if (!program.ok) throw new Error("a kit that was read must compile");
  const columns = readTake(program.value, take.value);
  const { trace } = runStaged(program.value, columns, compileStage(kit.value, program.value));
  process.stdout.write(JSON.stringify(formatTrace(program.value, trace)) + "\n");
}

new Command("trace")
  .description("What the core makes of a take: KIT.json and TAKE.json in, the trace out")
  .argument("<kit>", "a kit file")
  .argument("<take>", "a take file")
  .exitOverride(error => process.exit(error.exitCode === 0 ? 0 : 2))
  .action(main)
  .parse();
