import { join } from "node:path";
import { Command } from "commander";
import { formatPhasedTrace, formatTrace, readTake, type Take } from "#core";
import { createSlugs } from "#handover";
import { parseRules, runRules, type Rules } from "#stage";
import { writeOut } from "./output";
import { readDocument } from "./readDocument";
import { readTakeFile } from "./readTakeFile";
import { refuse } from "./refuse";
import { listTakeFiles } from "./takeFiles";

interface Options {
  readonly phases?: boolean;
  readonly out?: string;
}

/** Returns the trace of a take as a line of JSON. */
function traceLine(rules: Rules, take: Take, hasPhases: boolean | undefined): string {
  const { program } = rules;
  const { trace } = runRules(rules, readTake(program, take));
  const format = hasPhases ? formatPhasedTrace : formatTrace;
  return `${JSON.stringify(format(program, trace))}\n`;
}

/**
 * Writes the trace of every take, on the kit's stage if any: a line each to standard output, in the order of the takes; or a
 * file each into a folder. One line per fault to standard error, with exit code 2.
 */
function main(kitFile: string, words: string[], { phases, out }: Options): void {
  const kit = readDocument(kitFile, parseRules);
  const files = listTakeFiles(words);
  if ("lines" in kit || "lines" in files) {
    const takes = "lines" in files ? [] : files.map(file => readTakeFile(file, 1));
    return refuse([kit, files, ...takes].flatMap(read => ("lines" in read ? read.lines : [])));
  }
  const slugs = createSlugs("take");
  const notes: string[] = [];
  const faults: string[] = [];
  let count = 0;
  for (const file of files) {
    const read = readTakeFile(file, kit.value.program.rateHz);
    if ("leftOut" in read) notes.push(`left out: ${read.leftOut}`);
    else if ("lines" in read) faults.push(...read.lines);
    else {
      count++;
      const line = traceLine(kit.value, read.take, phases);
      if (out === undefined) process.stdout.write(line);
      else {
        const fault = writeOut(join(out, `${slugs(read.take.id)}.trace.json`), line);
        if (fault) return refuse([fault]);
      }
    }
  }
  process.stderr.write(notes.map(note => `${note}\n`).join(""));
  if (faults.length > 0) return refuse(faults);
  if (count === 0) refuse(["no take was found: name takes, or folders that hold some"]);
}

export const traceCommand = () =>
  new Command("trace")
    .description(
      "The events the rules make of takes: KIT.json and takes in; a trace each, on a line each, out",
    )
    .argument("<kit>", "a kit file")
    .argument("<takes...>", "takes, takes together, packs, or folders of these")
    .option("--phases", "also the phases of moves: startup, active, recovery, over and cut")
    .option("--out <folder>", "write a file for each take into this folder, named by the take's id")
    .action(main);
