import { statSync } from "node:fs";
import { extname, join } from "node:path";
import { Command, InvalidArgumentError, Option } from "commander";
import { countWords, parseChecks, parseLayout } from "#core";
import { EXPORT_FORMATS, NO_PARTS, type ExportFormat, type HandoverParts, type OutFile } from "#handover";
import { parseRules } from "#stage";
import { writeOut } from "./output";
import { loadFrameRules, loadParts } from "./parts";
import { readDocument } from "./readDocument";
import { readTakeFile } from "./readTakeFile";
import { refuse } from "./refuse";
import { listTakeFiles } from "./takeFiles";

/** The names of the forms on the command line. */
const COMMANDS = new Map(
  EXPORT_FORMATS.flatMap(format =>
    format.commands.map(({ as, isIncluded = () => true }) => [as, { format, isIncluded }] as const),
  ),
);

/** Extensions that promise a kind of file; others may be part of a folder's name. */
const KNOWN_KINDS = new Set([
  ".json",
  ".csv",
  ".h",
  ".zip",
  ".html",
  ".vcd",
  ".mjs",
  ".txt",
  ".md",
  ".svg",
  ".png",
]);

interface Options {
  readonly as: string;
  readonly out: string;
  readonly checks?: string;
  readonly layouts: readonly string[];
  readonly since?: string;
  readonly rates?: readonly number[];
  readonly boundaries: boolean;
}

/** Parses rates: "30,120". */
function parseRates(written: string): readonly number[] {
  const rates = written.split(",").map(Number);
  if (rates.every(rate => rate >= 1 && rate <= 1000)) return rates;
  throw new InvalidArgumentError("write frames a second, one or more, with commas between: 30,120");
}

const isFolder = (path: string) =>
  path.endsWith("/") || statSync(path, { throwIfNoEntry: false })?.isDirectory();

/**
 * Writes one file to the given path, or into it if it is a folder, and several into a folder of that name. Returns the first
 * fault: also a path whose extension promises another kind of file.
 */
function write(files: readonly OutFile[], out: string, as: string): string | undefined {
  const kinds = [...new Set(files.map(({ name }) => extname(name)))];
  const wanted = isFolder(out) ? "" : extname(out).toLowerCase();
  const [first] = files;
  if (files.length === 1 && first) {
    if (KNOWN_KINDS.has(wanted) && wanted !== kinds[0])
      return `--out ${out}: --as ${as} writes a ${kinds[0]} file: name it so, or name a folder`;
    return writeOut(isFolder(out) ? join(out, first.name) : out, first.bytes);
  }
  if (KNOWN_KINDS.has(wanted))
    return `--out ${out}: --as ${as} writes ${countWords(files.length, "file")} (${kinds.join(", ")}): name a folder`;
  for (const { name, bytes } of files) {
    const fault = writeOut(join(out, name), bytes);
    if (fault) return fault;
  }
  return undefined;
}

/** Loads the parts that a form uses. */
async function makeParts({ uses }: ExportFormat): Promise<HandoverParts> {
  if (uses.includes("parts") || uses.includes("faces")) return loadParts();
  return uses.includes("frame-rules") ? { ...NO_PARTS, runtime: [loadFrameRules()] } : NO_PARTS;
}

/**
 * Writes a kit with its takes in one of its export forms, with the same files as the page. Exit code 2:
 * unreadable input, nothing is written.
 */
async function main(kitFile: string, words: string[], options: Options): Promise<void> {
  const { as, out, checks: checksFile, layouts: layoutFiles, since: sinceFile, rates } = options;
  const rules = readDocument(kitFile, parseRules);
  const listed = words.length > 0 ? listTakeFiles(words) : [];
  const checks = checksFile === undefined ? undefined : readDocument(checksFile, parseChecks);
  const layouts = layoutFiles.map(file => readDocument(file, parseLayout));
  const since = sinceFile === undefined ? undefined : readDocument(sinceFile, parseRules);
  const read =
    "lines" in listed
      ? []
      : listed.map(file => readTakeFile(file, "value" in rules ? rules.value.kit.rate : 60));
  const faults = [rules, listed, checks, since, ...layouts, ...read].flatMap(item =>
    item && "lines" in item ? item.lines : [],
  );
  if (faults.length > 0 || "lines" in rules) return refuse(faults);
  const { format, isIncluded } = COMMANDS.get(as)!;
  const files = format
    .files(
      {
        kit: rules.value.kit,
        takes: read.flatMap(item => ("take" in item ? [item.take] : [])),
        layouts: layouts.flatMap(item => ("value" in item ? [item.value] : [])),
        checks: checks && "value" in checks ? checks.value.checks : [],
        skipsBoundaries: !options.boundaries,
        sheet: {
          ...(since && "value" in since
            ? { since: { name: since.value.kit.name || since.value.kit.id, kit: since.value.kit } }
            : {}),
          ...(rates ? { rates } : {}),
        },
      },
      await makeParts(format),
    )
    .filter(({ name }) => isIncluded(name));
  if (files.length === 0) return refuse([`--as ${as}: there is nothing to write: name takes behind the kit`]);
  const fault = write(files, out, as);
  if (fault) refuse([fault]);
}

export const exportCommand = () =>
  new Command("export")
    .description("A kit with its takes in a form in which it leaves: KIT.json and takes in, files out")
    .argument("<kit>", "a kit file")
    .argument("[takes...]", "take files, folders of them, or - for a list of files on standard input")
    .addOption(
      new Option("--as <form>", "what is written").choices([...COMMANDS.keys()]).makeOptionMandatory(),
    )
    .requiredOption("--out <path>", "the file that is written, or a folder")
    .option("--checks <file>", "a file of checks that leave with it")
    .option("--layouts <files...>", "layouts of keys that leave with it", [])
    .option(
      "--no-boundaries",
      "test vectors of the takes alone, without inputs at the boundary of every number",
    )
    .option("--since <kit>", "the sheet lists what changed since this kit")
    .option(
      "--rates <list>",
      "rates at which the sheet gives lengths besides the kit's own: 30,120",
      parseRates,
    )
    .action(main);
