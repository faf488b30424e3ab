import { basename, extname } from "node:path";
import { Command, Option } from "commander";
import { formatIssue, parseMapping, parseTake, type Mapping, type Result } from "#core";
import {
  feedTable,
  formatFile,
  parseTable,
  readDump,
  TABLE_HEAD_BYTES,
  type NamedTake,
  type ReadRecording,
} from "#handover";
import { readDocument } from "./readDocument";
import { readHead, readText, streamText } from "./readText";
import { writeOut } from "./output";
import { refuse } from "./refuse";

interface Options {
  readonly as: "csv" | "vcd";
  readonly map: string;
  readonly out?: string;
  readonly kit?: string;
  readonly lenient?: boolean;
}

/** Reads a table in chunks, in constant memory. */
async function readCsv(file: string, mapping: Mapping, named: NamedTake): Promise<Result<ReadRecording>> {
  const feed = feedTable(mapping);
  const head = readHead(file, TABLE_HEAD_BYTES);
  await parseTable(streamText(file, head), head, feed);
  return feed.finish(named);
}

/**
 * Reads a recording from another program as a take through a mapping; see docs/file-formats.md. Exit code 2:
 * unreadable input, nothing is written.
 */
async function main(file: string, { as, map, out, kit, lenient }: Options): Promise<void> {
  const mapping = readDocument(map, parseMapping);
  if ("lines" in mapping) return refuse(mapping.lines);
  if ((mapping.value.sort === "dump") !== (as === "vcd"))
    return refuse([`${map}: its sort is ${mapping.value.sort}, which is not read --as ${as}`]);
  const name = basename(file, extname(file));
  const named = { id: name, name, ...(kit === undefined ? {} : { kit }) };
  const read = await (async (): Promise<Result<ReadRecording> | string> => {
    try {
      if (as === "vcd") return readDump(mapping.value, readText(file), named);
      return await readCsv(file, mapping.value, named);
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  })();
  if (typeof read === "string") return refuse([`${file}: cannot be read (${read})`]);
  if (!read.ok) return refuse(read.issues.map(issue => `${file}: ${formatIssue(issue)}`));
  const { take, notes, leftOut } = read.value;
  const checked = parseTake(take);
  if (!checked.ok) return refuse(checked.issues.map(issue => `${file}: ${formatIssue(issue)}`));
  process.stderr.write(notes.map(line => `${file}: ${line}\n`).join(""));
  // Without some of its rows the take is another one than was played.
  if (leftOut > 0) {
    process.stderr.write(`${file}: ${leftOut} ${leftOut === 1 ? "row is" : "rows are"} left out\n`);
    if (!lenient) process.exitCode = 2;
  }
  if (out === undefined) process.stdout.write(formatFile(take));
  else {
    const fault = writeOut(out, formatFile(take));
    if (fault) refuse([fault]);
  }
}

export const importCommand = () =>
  new Command("import")
    .description(
      "A recording from elsewhere as a take: a table or a value change dump and a mapping in, a take out",
    )
    .argument("<file>", "the recording")
    .addOption(new Option("--as <form>", "what it is").choices(["csv", "vcd"]).makeOptionMandatory())
    .requiredOption("--map <file>", "a mapping: which columns or signals play which controls")
    .option("--kit <id>", "the id of the kit it is of")
    .option("--lenient", "exit with 0 even if rows were left out")
    .option("--out <file>", "the take that is written, instead of standard output")
    .action(main);
