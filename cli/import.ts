import { createReadStream, readFileSync, writeFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { Command, Option } from "commander";
import { parse } from "csv-parse";
import { formatIssue, parseMapping, parseTake, type Mapping, type Result } from "#core";
import { beginTable, formatFile, readDump, type ReadRecording, type TableReader } from "#handover";
import { readDocument } from "./readDocument";
import { refuse } from "./refuse";

interface Options {
  readonly as: "csv" | "vcd";
  readonly map: string;
  readonly out?: string;
  readonly kit?: string;
}

/** Reads a table row by row: what is in memory does not grow with the file. */
async function readCsv(
  file: string,
  mapping: Mapping,
  named: Parameters<TableReader["finish"]>[0],
): Promise<Result<ReadRecording>> {
  const parser = createReadStream(file).pipe(
    parse({ bom: true, relax_column_count: true, skip_empty_lines: true, info: true }),
  );
  let reader: TableReader | undefined;
  for await (const { record, info } of parser as AsyncIterable<{
    record: string[];
    info: { lines: number };
  }>) {
    if (reader) {
      reader.row(record, info.lines);
      continue;
    }
    const begun = beginTable(mapping, record);
    if (!begun.ok) return begun;
    reader = begun.value;
  }
  if (reader) return { ok: true, value: reader.finish(named), warnings: [] };
  return { ok: false, issues: [{ code: "empty", severity: "fault", path: [], facts: {} }] };
}

/** Reads a recording from elsewhere as a take by a mapping; see docs/file-formats.md. Exit code 2: it could not be read, and nothing is written. */
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
