import { createReadStream, readFileSync, writeFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { Command, Option } from "commander";
import { formatIssue, parseMapping, parseTake, type Mapping, type Result } from "#core";
import { feedTable, formatFile, parseTable, readDump, type NamedTake, type ReadRecording } from "#handover";
import { readDocument } from "./readDocument";
import { refuse } from "./refuse";

interface Options {
  readonly as: "csv" | "vcd";
  readonly map: string;
  readonly out?: string;
  readonly kit?: string;
}

/** Reads a table in chunks, in constant memory. */
async function readCsv(file: string, mapping: Mapping, named: NamedTake): Promise<Result<ReadRecording>> {
  const feed = feedTable(mapping);
  await parseTable(createReadStream(file, "utf8"), feed);
  return feed.finish(named);
}

/**
 * Reads a recording from another program as a take through a mapping; see docs/file-formats.md. Exit code 2:
 * unreadable input, nothing is written.
 */
async function main(file: string, { as, map, out, kit }: Options): Promise<void> {
  const mapping = readDocument(map, parseMapping);
  if ("lines" in mapping) return refuse(mapping.lines);
  if ((mapping.value.sort === "dump") !== (as === "vcd"))
    return refuse([`${map}: its sort is ${mapping.value.sort}, which is not read --as ${as}`]);
  const name = basename(file, extname(file));
  const named = { id: name, name, ...(kit === undefined ? {} : { kit }) };
  const read = await (async (): Promise<Result<ReadRecording> | string> => {
    try {
      if (as === "vcd") return readDump(mapping.value, readFileSync(file, "utf8"), named);
      return await readCsv(file, mapping.value, named);
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  })();
  if (typeof read === "string") return refuse([`${file}: cannot be read (${read})`]);
  if (!read.ok) return refuse(read.issues.map(issue => `${file}: ${formatIssue(issue)}`));
  const { take, notes } = read.value;
  const checked = parseTake(take);
  if (!checked.ok) return refuse(checked.issues.map(issue => `${file}: ${formatIssue(issue)}`));
  process.stderr.write(notes.map(line => `${file}: ${line}\n`).join(""));
  if (out === undefined) process.stdout.write(formatFile(take));
  else writeFileSync(out, formatFile(take));
}

await new Command("import")
  .description(
    "A recording from elsewhere as a take: a table or a value change dump and a mapping in, a take out",
  )
  .argument("<file>", "the recording")
  .addOption(new Option("--as <form>", "what it is").choices(["csv", "vcd"]).makeOptionMandatory())
  .requiredOption("--map <file>", "a mapping: which columns or signals play which controls")
  .option("--kit <id>", "the id of the kit it is of")
  .option("--out <file>", "the take that is written, instead of standard output")
  .exitOverride(error => process.exit(error.exitCode === 0 ? 0 : 2))
  .action(main)
  .parseAsync();
